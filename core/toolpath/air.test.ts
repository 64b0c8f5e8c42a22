import { describe, expect, it } from 'vitest'
import { layOut } from '../testing/layOut'
import { lengthOf, movesOf, mushroom, table } from '../testing/paths'
import { meshOf, solids } from '../testing/solids'
import { code } from './toolpath'

describe('in the air', () => {
  it('bridges are found, run along their span, and are laid from foot to foot', async () => {
    const { path, regions } = await layOut(table(), {})
    const bridges = movesOf(path, code.bridge)
    expect(bridges.length).toBeGreaterThan(10)
    for (const m of bridges) expect(path.z[m]).toBeCloseTo(4.2, 6)
    const along = bridges.filter((m) => lengthOf(path, m) > 5)
    for (const m of along) expect(Math.abs(path.y[m + 1]! - path.y[m]!)).toBeLessThan(1e-6)
    // 18 mm between the feet, and two lines' width of rest at either end.
    for (const m of along) expect(lengthOf(path, m)).toBeGreaterThan(18)
    expect(regions.bridgeSpan[0]).toBeCloseTo(18, 0)
  })

  it('an overhanging plate is no bridge', async () => {
    expect(movesOf((await layOut(mushroom(), {})).path, code.bridge)).toHaveLength(0)
  })

  it('tells the share of a line that nothing bears', async () => {
    const { path, layers } = await layOut(mushroom(), {})
    const layer = [...layers.top].findIndex((top) => top > 12.1)
    for (const m of movesOf(path, code.outerWall)) {
      if (path.z[m]! < 11.9 || m < path.layerStart[5]!) expect(path.air[m]).toBeLessThan(10)
      if (m >= path.layerStart[layer]! && m < path.layerStart[layer + 1]!) expect(path.air[m]).toBe(255)
    }
  })

  it('tells it by the formula h·tan(angle)/w on a cone (models §6)', async () => {
    const { Manifold } = await solids
    for (const degrees of [20, 40, 55]) {
      const grow = 8 * Math.tan((degrees * Math.PI) / 180)
      const { path } = await layOut(meshOf(Manifold.cylinder(8, 10, 10 + grow, 256)), {})
      const shares = movesOf(path, code.outerWall)
        .filter((m) => path.z[m]! > 2 && path.z[m]! < 7)
        .map((m) => path.air[m]! / 255)
      const mean = shares.reduce((sum, share) => sum + share, 0) / shares.length
      expect(mean).toBeCloseTo(Math.min(1, (0.2 * Math.tan((degrees * Math.PI) / 180)) / 0.4), 1)
    }
  })
})
