import { describe, expect, it } from 'vitest'
import type { Settings } from '../profile/settings'
import { layOut } from '../testing/layOut'
import { lengthOf, movesOf, total } from '../testing/paths'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { leavesPart } from './leavesPart'
import { code, isLaid, moveCount, type Toolpath } from './toolpath'

describe('travel', () => {
  it('that is said to stay inside does, and retracts less', async () => {
    const { Manifold } = await solids
    const horseshoe = meshOf(
      Manifold.cylinder(2, 15, 15, 64)
        .subtract(Manifold.cylinder(6, 10, 10, 64, true))
        .subtract(Manifold.cube([6, 40, 6], true).translate([0, -20, 0])),
    )
    const inside = await layOut(horseshoe, { travelInside: 'on', infillDensity: 10 })
    const straight = await layOut(horseshoe, { travelInside: 'off', infillDensity: 10 })
    expect(movesOf(inside.path, code.retract).length).toBeLessThan(movesOf(straight.path, code.retract).length)
    let pulled = false
    for (let m = 0; m < moveCount(inside.path); m++) {
      const { feature, x, y, layerStart } = inside.path
      if (feature[m] === code.retract) pulled = true
      if (feature[m] === code.pushBack) pulled = false
      if (feature[m] !== code.travel || pulled || lengthOf(inside.path, m) < 1.5) continue
      const layer = layerStart.findIndex((start) => start > m) - 1
      if (m - layerStart[layer]! < 3) continue
      expect(leavesPart(inside.layers.outlines, layer, x[m]!, y[m]!, x[m + 1]!, y[m + 1]!)).toBe(false)
    }
  })

  const towers = () => joined(moved(blockMesh(6, 6, 2), -10, 0, 0), moved(blockMesh(6, 6, 2), 10, 0, 0), moved(blockMesh(4, 4, 2), 0, 0, 0))

  it('wipes and coasts before it pulls, and lays as much less as it coasts', async () => {
    const plain = await layOut(towers(), {})
    const wiping = await layOut(towers(), { wipeLength: 2, coastLength: 0.5 })
    const pulls = movesOf(wiping.path, code.retract).length
    expect(pulls).toBe(movesOf(plain.path, code.retract).length)
    expect(total(wiping.path, code.wipe)).toBeCloseTo(2 * pulls, 0)
    expect(total(wiping.path, code.coast)).toBeCloseTo(0.5 * pulls, 1)
    const laid = (path: Toolpath) =>
      [...path.feature.keys()].filter((m) => isLaid(path.feature[m]!)).reduce((sum, m) => sum + lengthOf(path, m), 0)
    expect(laid(plain.path) - laid(wiping.path)).toBeCloseTo(0.5 * pulls, 1)
  })

  it('lifts never, always, or only over what is printed (S5)', async () => {
    const lifts = async (lift: Settings['lift']) => {
      const { path } = await layOut(towers(), { lift })
      let count = 0
      for (let m = 0; m < moveCount(path); m++) if (path.z[m + 1]! > path.z[m]! && !path.layerStart.includes(m)) count++
      return count
    }
    expect(await lifts('never')).toBe(0)
    expect(await lifts('always')).toBeGreaterThan(0)
    expect(await lifts('overPrinted')).toBeLessThan(await lifts('always'))
  })

  it('pulls back at layer changes when asked to', async () => {
    const count = async (retractAtLayer: 'on' | 'off') =>
      movesOf((await layOut(blockMesh(10, 10, 2), { retractAtLayer })).path, code.retract).length
    expect((await count('on')) - (await count('off'))).toBe(9)
  })
})
