import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../profile/settings'
import { layOut } from '../testing/layOut'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
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

  it('has a brim round the bodies of a place alone, which runs through no other', async () => {
    const posts = joined(moved(blockMesh(6, 6, 2), -5, 0, 0), moved(blockMesh(6, 6, 2), 5, 0, 0))
    const right = { minX: 0, maxX: 40, minY: -40, maxY: 40 }
    const foot = async (values: SettingValues, own: SettingValues) =>
      (await layOut(posts, values, [{ name: 'right', fromZ: 0, box: right, values: own }])).regions.foot
    const xs = ({ xy }: { readonly xy: Float64Array }) => Array.from({ length: xy.length / 2 }, (_, i) => xy[2 * i]!)
    const onlyRight = await foot({}, { brim: 'outer', brimWidth: 6 })
    expect(Math.max(...xs(onlyRight))).toBeGreaterThan(13)
    // It goes round the other body, whose side is 6 mm long, and not through it.
    const { xy } = onlyRight
    for (let i = 0; i < xy.length; i += 2) expect(xy[i]! < -2 && Math.abs(xy[i + 1]!) < 3).toBe(false)
    const notRight = await foot({ brim: 'outer', brimWidth: 3 }, { brim: 'none' })
    expect(Math.min(...xs(notRight))).toBeLessThan(-10)
    expect(Math.max(...xs(notRight))).toBeLessThan(2)
    // Its walls are cut nowhere.
    const { regions } = await layOut(posts, {}, [{ name: 'right', fromZ: 0, box: right, values: { brim: 'outer' } }])
    expect(regions.walls[0]!.groupStart[1]).toBe(2)
  })

  it('has a first layer of its own width', async () => {
    const { path } = await layOut(blockMesh(20, 20, 1), { firstLayerWidth: 0.5 })
    for (let m = path.layerStart[0]!; m < path.layerStart[1]!; m++)
      if (path.feature[m] === code.outerWall) expect(path.width[m]).toBeCloseTo(0.5, 6)
  })
})
