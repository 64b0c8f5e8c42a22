import { describe, expect, it } from 'vitest'
import { asModelled } from '../mesh/place'
import { layDown } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { testSolids } from '../testing/solidKernel'
import { runToEnd } from '../units/steps'
import { foretoldOf } from './foretoldOf'
import { planTrial, trialPart } from './plan'
import { readTrial } from './read'
import { solvedBarWork } from './solvedBar'
import type { TrialKindId, TrialSpec } from './spec/trial'

const setup = setupOf()
async function printed(id: TrialKindId, form?: string) {
  const { spec } = planTrial(id, setup, form === undefined ? {} : { form })
  const part = trialPart(spec, setup, await testSolids)
  const choice = { kernel: await testKernel }
  const laid = layDown(part, asModelled, setup, spec.values, choice)
  const prediction = predict(part, asModelled, setup, spec.values, choice)
  return { spec, prediction, barMm3: runToEnd(solvedBarWork(spec, laid, prediction, setup)) }
}
const stressOf = (spec: TrialSpec, foretold: Parameters<typeof readTrial>[3]): number =>
  Number(readTrial(spec, setup, { bands: [], whole: { arm: 45, load1: 2.8 } }, foretold).found.match(/[\d.]+/)![0])

describe('a bar’s own section, solved', () => {
  it('is near b·h²/6 of a lying bar (any handbook): a handful is over a little more than its outermost fibre, and lines aslant bear less', async () => {
    const { barMm3, spec, prediction } = await printed('barsLying')
    const full = (10 * 4 ** 2) / 6
    expect(barMm3! / full).toBeGreaterThan(0.85)
    expect(barMm3! / full).toBeLessThan(1.2)
    // What broke it is told by that, not by the plain section.
    const foretold = { ...foretoldOf(spec, setup, prediction), barMm3 }
    expect(stressOf(spec, foretold)).toBeCloseTo((2.8 * 9.81 * 45) / barMm3!, 1)
    expect(stressOf(spec, { ...foretold, barMm3: undefined })).toBeCloseTo((2.8 * 9.81 * 45) / full, 1)
  })

  it('is smaller where a notch is, and about that of what the notch leaves', async () => {
    const { barMm3 } = await printed('barsLying', 'notched')
    const left = (10 * 3 ** 2) / 6
    expect(barMm3! / left).toBeGreaterThan(0.75)
    expect(barMm3! / left).toBeLessThan(1.35)
  })

  it('is near that of its square of a standing bar, whose layers part', async () => {
    const { barMm3 } = await printed('barsStanding')
    const full = 6 ** 3 / 6
    expect(barMm3! / full).toBeGreaterThan(0.8)
    expect(barMm3! / full).toBeLessThan(1.35)
  })

  it('is none of a trial without bars', async () => {
    expect((await printed('temperature')).barMm3).toBeUndefined()
  })
})
