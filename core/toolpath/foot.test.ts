import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../profile/settings'
import { layOut } from '../testing/layOut'
import { blockMesh, meshOf, solids } from '../testing/solids'
import { code } from './toolpath'

describe('the foot', () => {
  it('has a skirt around everything, and a brim on the side that is asked for', async () => {
    const { Manifold } = await solids
    const ring = meshOf(Manifold.cylinder(2, 14, 14, 64).subtract(Manifold.cylinder(6, 8, 8, 64, true)))
    const foot = async (values: SettingValues) => (await layOut(ring, values)).regions.foot
    const radii = async (values: SettingValues) => {
      const { xy } = await foot(values)
      return Array.from({ length: xy.length / 2 }, (_, i) => Math.hypot(xy[2 * i]!, xy[2 * i + 1]!))
    }
    expect(await radii({})).toHaveLength(0)
    for (const r of await radii({ skirtLines: 2, skirtGap: 5 })) expect(r).toBeGreaterThan(18.9)
    for (const r of await radii({ brim: 'outer', brimWidth: 4 })) expect([r > 14, r < 18.2]).toEqual([true, true])
    for (const r of await radii({ brim: 'inner', brimWidth: 4 })) expect([r < 8, r > 3.7]).toEqual([true, true])
    expect((await foot({ brim: 'both', brimWidth: 4 })).polygonStart.length - 1).toBe(20)
  })

  it('has a first layer of its own width', async () => {
    const { path } = await layOut(blockMesh(20, 20, 1), { firstLayerWidth: 0.5 })
    for (let m = path.layerStart[0]!; m < path.layerStart[1]!; m++)
      if (path.feature[m] === code.outerWall) expect(path.width[m]).toBeCloseTo(0.5, 6)
  })
})
