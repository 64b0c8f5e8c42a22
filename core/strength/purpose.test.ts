import { beforeAll, describe, expect, it } from 'vitest'
import { type Prediction, predict } from '../predict'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { judge, noPurpose, type Purpose, purposeSchema, statedCase, statedLoad } from './purpose'

let p: Prediction
beforeAll(async () => {
  const part = partOf('purposeful', blockMesh(60, 10, 6))
  p = predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), {}, { kernel: await testKernel })
})
const loaded = (load: Purpose['load'], limits: Purpose['limits'] = {}): Purpose => ({ kind: 'load', seen: 'all', load, limits })

describe('what a part is for', () => {
  it('names the load along its axis, or along the weakest', () => {
    expect(statedCase(p, loaded({ kind: 'pull', axis: 'y' }))).toBe('pullY')
    const weakest = statedCase(p, noPurpose)
    for (const other of ['bendX', 'bendY', 'bendZ'] as const) expect(p.strength[weakest].loadN).toBeLessThanOrEqual(p.strength[other].loadN)
    expect(statedLoad(p, loaded({ kind: 'crush', axis: 'z' }))).toBe(p.strength.crushZ)
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
})
