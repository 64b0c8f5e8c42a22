import { beforeAll, describe, expect, it } from 'vitest'
import { leversFor } from '../advice/levers'
import { explain } from '../advice/why'
import { figureIds } from '../figures/table/figure'
import { statedLoad } from '../figures/table/stated'
import { noPurpose } from '../physics/strength/purpose'
import { type Prediction, predict } from '../pipeline/predict'
import { checkValue, type SettingName } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { doubt, doubtsOf, rangeOf, whatToMeasure } from './doubt'

let p: Prediction
let measured: Prediction
beforeAll(async () => {
  const kernel = await testKernel
  const part = partOf('doubtful', blockMesh(30, 20, 8))
  const on = (setup: ReturnType<typeof setupOf>) => predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setup, {}, { kernel })
  p = on(setupOf())
  const ladder = [
    { temperature: 200, flow: 20 },
    { temperature: 220, flow: 28 },
  ]
  measured = on({ ...setupOf(), material: { ...setupOf().material, ladder } })
})

describe('doubt', () => {
  it('combines independent inputs by the root of their squares (Gauss)', () => {
    expect(doubt('sway', p, noPurpose)).toBeCloseTo(Math.hypot(0.2, 0.5), 12)
    const total = Math.hypot(...doubtsOf('sway', p, noPurpose).map(({ share }) => share))
    expect(total).toBeCloseTo(doubt('sway', p, noPurpose), 12)
  })

  it('gives ranges that hold the value between them', () => {
    for (const figure of figureIds) {
      const [low, high] = rangeOf(10, doubt(figure, p, noPurpose))
      expect(low).toBeLessThanOrEqual(10)
      expect(high).toBeGreaterThanOrEqual(10)
    }
  })

  it('is less where something was measured, and that is not asked for again', () => {
    expect(measured.melt.basis).toBe('measured')
    expect(doubt('gloss', measured, noPurpose) / (4 * (1 - measured.gloss.mean))).toBeCloseTo(0.05, 9)
    expect(whatToMeasure([p], noPurpose).map(({ input }) => input)).toContain('flow')
    expect(whatToMeasure([measured], noPurpose).map(({ input }) => input)).not.toContain('flow')
  })

  it('asks first for what removes most', () => {
    const wanted = whatToMeasure([p, measured], noPurpose)
    for (let i = 1; i < wanted.length; i++) expect(wanted[i]!.removes).toBeLessThanOrEqual(wanted[i - 1]!.removes)
    expect(wanted[0]!.removes).toBeGreaterThan(0)
    expect(wanted.reduce((sum, { removes }) => sum + removes, 0)).toBeLessThan(1)
    expect(whatToMeasure([], noPurpose)).toEqual([])
  })
})

describe('why a figure is what it is', () => {
  it.each(figureIds)('%s is told with its equation, numbers, place, basis and source', (figure) => {
    const told = explain(figure, p, setupOf(), noPurpose)
    expect(told.equation.length).toBeGreaterThan(8)
    expect(told.terms.length).toBeGreaterThan(1)
    for (const { label, value } of told.terms) expect(`${label} ${value}`).not.toMatch(/NaN|undefined|Infinity/)
    expect(told.place.length).toBeGreaterThan(10)
    expect(told.source.length).toBeGreaterThan(5)
  })

  it('tells the same numbers as the figure', () => {
    const { terms } = explain('cost', p, setupOf(), noPurpose)
    expect(terms[0]!.value).toContain(`= ${p.filament.materialCost.toFixed(2)}`)
    const { place, source } = explain('strength', p, setupOf(), noPurpose)
    expect(place).toContain(`${statedLoad(p, noPurpose).weakestAtMm.toFixed(1)} mm`)
    expect(source).toContain('never a rating')
    const crushed = { ...noPurpose, load: { ...noPurpose.load, kind: 'crush', axis: 'x' } } as const
    expect(explain('strength', p, setupOf(), crushed).terms[0]!.value).toBe('pressed together along X')
  })
})

describe('single changes to try', () => {
  it('are possible values, other than those in force, and only of what means something', () => {
    for (const values of [{}, { infillDensity: 0, wallCount: 1, fanSpeed: 0, nozzleTemperature: 500 }]) {
      const settings = settingsOf(values)
      const levers = leversFor(settings)
      expect(levers.length).toBeGreaterThan(8)
      for (const { name, values: changed } of levers) {
        const value = changed[name]
        expect(checkValue(name, value)).toBe(value)
        expect(value).not.toBe(settings[name as SettingName])
      }
    }
    expect(leversFor(settingsOf({ infillDensity: 0 })).map(({ label }) => label)).not.toContain('ten points less infill')
  })
})
