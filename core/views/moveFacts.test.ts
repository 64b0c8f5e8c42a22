import { describe, expect, it } from 'vitest'
import { planMotion } from '../motion/planMotion'
import { layOut } from '../testing/layOut'
import { setupOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { code, moveCount } from '../toolpath/toolpath'
import { factsOf } from './moveFacts'

describe('what is known of a move', () => {
  const planned = async () => {
    const slow = { name: 'slow end', fromZ: 2, values: { outerWallSpeed: 20 } }
    const laid = await layOut(blockMesh(30, 20, 4), { layerHeight: 0.2, outerWallSpeed: 40, minLayerTime: 0 }, [slow])
    const motion = planMotion(laid.path, (scope) => laid.scopes.settingsOf(scope), setupOf().printer)
    return { ...laid, facts: Array.from({ length: moveCount(laid.path) }, (_, m) => factsOf(laid.path, motion, m, ['slow end'])), motion }
  }

  it('adds up to the plan: time by layer, and v·t over the way', async () => {
    const { facts, motion } = await planned()
    for (const layer of [0, 3, 15]) {
      const time = facts.filter((fact) => fact.layer === layer).reduce((sum, { durationS }) => sum + durationS, 0)
      expect(time).toBeCloseTo(motion.layerTime[layer]!, 3)
    }
    for (const { lengthMm, durationS, meanMmS, peakMmS } of facts.filter(({ lengthMm }) => lengthMm > 0.01)) {
      expect(meanMmS * durationS).toBeCloseTo(lengthMm, 6)
      expect(meanMmS).toBeLessThanOrEqual(peakMmS * 1.0001)
    }
  })

  it('names the override, the first layers and what is asked', async () => {
    const { facts } = await planned()
    const wall = (layer: number) => facts.find((fact) => fact.layer === layer && fact.feature === 'outerWall' && fact.lengthMm > 15)!
    expect(wall(3)).toMatchObject({ limiter: 'asked', peakMmS: 40, overrides: [] })
    expect(wall(15)).toMatchObject({
      limiter: 'override',
      peakMmS: 20,
      overrides: ['slow end'],
      why: expect.stringContaining('override'),
    })
    expect(wall(0).limiter).toBe('firstLayer')
  })

  it('gives the flow at the highest speed: cross-section × speed', async () => {
    const { facts, path } = await planned()
    const { move, areaMm2, flowMm3S, peakMmS } = facts.find(({ feature }) => feature === 'infill')!
    expect(path.feature[move]).toBe(code.infill)
    expect(flowMm3S).toBeCloseTo(areaMm2 * peakMmS, 9)
  })
})
