import { beforeAll, describe, expect, it } from 'vitest'
import { noPurpose, type Purpose, placeOf, purposeSchema } from '../physics/strength/purpose'
import { type Prediction, predict } from '../pipeline/predict'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { judge, missedWords } from './limits'
import { statedLoad } from './table/stated'

let p: Prediction
beforeAll(async () => {
  const part = partOf('purposeful', blockMesh(60, 10, 6))
  p = predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), {}, { kernel: await testKernel })
})
const loaded = (load: Partial<Purpose['load']>, limits: Purpose['limits'] = {}): Purpose => ({
  ...noPurpose,
  kind: 'load',
  load: { ...noPurpose.load, ...load },
  limits,
})

describe('what a part is for', () => {
  it('names the load along its axis, or along the weakest', () => {
    expect(statedLoad(p, loaded({ kind: 'pull', axis: 'y' }))).toMatchObject({ ...p.strength.pullY, along: 'Y', acrossLayers: false })
    const weakest = statedLoad(p, noPurpose)
    const known = (['bendX', 'bendY', 'bendZ'] as const).map((name) => p.strength[name]).filter(({ unfit }) => !unfit)
    expect(weakest.loadN).toBe(Math.min(...known.map(({ loadN }) => loadN)))
    expect(statedLoad(p, loaded({ kind: 'bend', axis: 'z' })).acrossLayers).toBe(true)
    expect(statedLoad(p, loaded({ kind: 'crush', axis: 'z' }))).toMatchObject({ ...p.strength.crushZ, acrossLayers: false })
  })

  it('asks for more than the axes only where the load is held, brought in or directed otherwise', async () => {
    expect(placeOf(noPurpose)).toBeUndefined()
    expect(placeOf({ ...noPurpose, load: { ...noPurpose.load, axis: 'y' } })).toMatchObject({ named: true })
    const nearer = loaded({ kind: 'bend', axis: 'x', loadedFrom: 60 })
    const of = async (purpose: Purpose) =>
      predict(
        partOf('purposeful', blockMesh(60, 10, 6)),
        { scale: 1, rotateDeg: [0, 0, 0] },
        setupOf(),
        {},
        {
          kernel: await testKernel,
          load: placeOf(purpose),
        },
      )
    // Half of the length from the hold instead of eight tenths: the same moment from 1.6 times the load.
    expect(statedLoad(await of(nearer), nearer).loadN / p.strength.bendX.loadN).toBeCloseTo(1.6, 1)
    const leaning = loaded({ kind: 'pull', axis: 'free', azimuthDeg: 0, elevationDeg: 30 })
    const slanted = await of(leaning)
    expect(statedLoad(slanted, leaning)).toMatchObject({ ...slanted.oblique!.pull, along: '0°, 30° up', acrossLayers: true })
  })

  it('is judged limit by limit, at most and at least', () => {
    const load = statedLoad(p, noPurpose).loadN
    const limits = {
      maxTimeS: p.timeS + 1,
      maxMassG: p.filament.massG / 2,
      maxCost: 1000,
      maxRaUm: p.surface.raMeanUm,
      minLoadN: load * 1.01,
    }
    const met = Object.fromEntries(judge(p, { ...noPurpose, limits }).map(({ limit, met }) => [limit, met]))
    expect(met).toEqual({ maxTimeS: true, maxMassG: false, maxCost: true, maxRaUm: true, minLoadN: false })
    expect(judge(p, noPurpose)).toEqual([])
  })

  it('takes only limits above 0', () => {
    expect(purposeSchema.safeParse(noPurpose).success).toBe(true)
    expect(purposeSchema.safeParse({ ...noPurpose, limits: { maxTimeS: 0 } }).success).toBe(false)
    expect(purposeSchema.safeParse({ ...noPurpose, load: { kind: 'twist', axis: 'x' } }).success).toBe(false)
  })

  it('neither keeps nor misses a limit of which there is no number', () => {
    const [judged] = judge({ ...p, timeS: 7200 }, loaded({}, { maxTimeS: 3600 }))
    expect(judged).toMatchObject({ met: false, known: true })
    expect(missedWords([judged!])).toEqual(['misses time'])
    expect(missedWords([{ limit: 'minLoadN', wanted: 40, has: Number.NaN, met: false, known: false }])).toEqual(['strength not known'])
  })
})
