import { beforeAll, describe, expect, it } from 'vitest'
import { noPurpose, type Purpose } from '../physics/strength/purpose'
import { type Prediction, predict } from '../pipeline/predict'
import { type SolvedPurpose, solvedKey } from '../pipeline/solvedWork'
import { knownSetup } from '../setup/knownSetup'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { figureOf } from './figures'
import { judge } from './limits'
import { solvedChecks } from './solvedChecks'
import { bySections, statedLoad } from './table/stated'

const purpose: Purpose = { ...noPurpose, kind: 'load', load: { ...noPurpose.load, kind: 'bend', axis: 'x' }, limits: { minLoadN: 30 } }
let p: Prediction
beforeAll(async () => {
  p = predict(partOf('told', blockMesh(60, 10, 6)), { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), {}, { kernel: await testKernel })
})
/** As a solver would tell it. */
const told = (own: Partial<SolvedPurpose> = {}, of = purpose): Prediction => ({
  ...p,
  solved: {
    of: solvedKey(of),
    factor: 25,
    spread: 1.2,
    failureN: 25,
    low: 20,
    high: 30,
    at: [-3, 0, 2],
    by: 'lines',
    stiffnessNmm: 12,
    voxelMm: 0.9,
    cells: 4000,
    iterations: 11,
    residual: 0.002,
    dropped: 0,
    axis: 'x',
    ...own,
  },
})
const ids = (own: Partial<SolvedPurpose>): string[] => solvedChecks(told(own), purpose).map(({ id }) => id)

describe('strength, once it is solved', () => {
  it('is the solved figure, marked; until then that of sections, marked too', () => {
    expect(figureOf.strength.of(p, purpose)).toMatchObject({ value: statedLoad(p, purpose).loadN, note: 'bend along X, by sections' })
    expect(figureOf.strength.of(told(), purpose)).toMatchObject({ value: 25, text: '25', unit: 'N', note: 'bend along X, solved' })
    expect(figureOf.strength.value(told(), purpose)).toBe(25)
    expect(judge(told(), purpose)).toMatchObject([{ limit: 'minLoadN', has: 25, met: false }])
    expect(bySections(told())).not.toHaveProperty('solved')
  })

  it('is not taken for that of another load', () => {
    const other = { ...purpose, load: { ...purpose.load, kind: 'pull' as const } }
    expect(figureOf.strength.of(told(), other).note).toBe('pull along X, by sections')
    expect(solvedChecks(told(), other)).toEqual([])
  })

  it('tells of a part that sways more than its sections say, and nothing twice', () => {
    const part = { atZMm: 40, mm: 0.2, overBeam: 4, mmPerN: 0.4, voxelMm: 0.4, cells: 900, bodies: 2, topMm: 40 }
    const swaying: Prediction = { ...p, solvedSway: { part } }
    expect(solvedChecks(swaying, purpose)).toMatchObject([{ id: 'sways-more-than-a-beam', atZMm: 40, severity: 'caution' }])
    expect(solvedChecks({ ...swaying, sway: { ...p.sway, slowAboveZMm: 30 } }, purpose)).toEqual([])
    expect(solvedChecks({ ...p, solvedSway: { part: { ...part, mm: 0.05 } } }, purpose)).toEqual([])
    expect(figureOf.sway.value(swaying, purpose)).toBe(0.2)
    expect(figureOf.sway.of(swaying, purpose)).toMatchObject({ text: '200', unit: 'µm', note: 'solved at z 40 mm' })
    expect(figureOf.sway.of({ ...p, solvedSway: { part: { ...part, mm: 0.9 } } }, purpose)).toMatchObject({ text: 'falls' })
    const told = figureOf.sway.explain(swaying, knownSetup(setupOf()), purpose).terms.map(({ value }) => value)
    expect(told.join()).toContain('4 × its beam; the weakest of 2 bodies')
  })

  it('of picked cases is that of the worst, in newtons or times its loads; before it is solved there is none', () => {
    const face = { at: [0, 0, 0] as [number, number, number], withinDeg: 20 }
    const picked: Purpose = {
      ...purpose,
      cases: [{ id: 'a', name: 'Twist', holds: [{ face, slides: false }], loads: [{ face, action: 'moment', amount: 1 }] }],
    }
    expect(figureOf.strength.of(p, picked)).toMatchObject({ text: '–', note: 'not solved yet' })
    const nan = { failureN: Number.NaN, low: Number.NaN, high: Number.NaN, stiffnessNmm: Number.NaN, factor: 2.34, name: 'Twist' }
    expect(figureOf.strength.of(told(nan, picked), picked)).toMatchObject({ text: '2.34', unit: '× its load', note: 'Twist, solved' })
  })

  it('tells why: grid, cells, what is left of the forces, its stiffness and place, beside what sections say', () => {
    const { terms, place, source } = figureOf.strength.explain(told(), knownSetup(setupOf()), purpose)
    const of = (label: string): string | undefined => terms.find((term) => term.label === label)?.value
    expect(of('grid')).toBe('4000 cells of 0.90 mm')
    expect(of('forces left out of balance')).toBe('0.2 % after 11 steps')
    expect(of('moves it by 1 mm')).toBe('12 N')
    expect(of('its sections say')).toMatch(/ N$/)
    expect(place).toMatch(/^Lines break first at x −3\.0 mm/)
    expect(source).toContain('never a rating')
  })
})

describe('what a solved load shows', () => {
  it('is nothing where lines break about where sections say', () => {
    expect(ids({ failureN: statedLoad(p, purpose).loadN })).toEqual([])
  })

  it('is layers that part first and walls that buckle, a caution where too little is borne', () => {
    const many = 2 * statedLoad(p, purpose).loadN
    expect(solvedChecks(told({ by: 'layers', failureN: many }), purpose)).toMatchObject([
      { id: 'layers-part-first', severity: 'note', atZMm: 2 },
    ])
    expect(solvedChecks(told({ by: 'layers', failureN: 20 }), purpose)[0]).toMatchObject({ severity: 'caution' })
    expect(ids({ by: 'buckling', failureN: many })).toEqual(['buckles'])
  })

  it('is what sections do not see, and what hangs on nothing', () => {
    expect(ids({ failureN: 0.5 * statedLoad(p, purpose).loadN })).toEqual(['more-than-a-beam'])
    expect(ids({ failureN: statedLoad(p, purpose).loadN, dropped: 0.1 })).toEqual(['hangs-on-nothing'])
  })
})
