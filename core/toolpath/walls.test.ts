import { demoParts } from '@sable/demo/scenario'
import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { type LaidOut, layOut } from '../testing/layOut'
import { demo, timeOf, total } from '../testing/paths'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { code } from './toolpath'
import { travelFigures } from './travelFigures'

describe('walls', () => {
  const ring = async () => {
    const { Manifold } = await solids
    return meshOf(Manifold.cylinder(2, 12, 12, 64).subtract(Manifold.cylinder(4, 6, 6, 48, true)))
  }

  it('finished hole by hole cost less travel (CP-T8, common practice)', async () => {
    const { Manifold } = await solids
    const holes = [-24, -8, 8, 24].flatMap((x) => [-8, 8].map((y) => Manifold.cylinder(6, 4, 4, 32, true).translate([x, y, 0])))
    const plate = meshOf(Manifold.cube([66, 34, 2], true).translate([0, 0, 1]).subtract(Manifold.union(holes)))
    const travel = async (finishEachLoop: 'on' | 'off') => total((await layOut(plate, { finishEachLoop, wallCount: 4 })).path, code.travel)
    expect(await travel('on')).toBeLessThan(await travel('off'))
    // The figure that tells what is saved comes from some of the layers.
    const { layers, regions, seams, laid, settings } = await layOut(plate, { finishEachLoop: 'on', wallCount: 4 })
    const { lengthMm, savedMm } = travelFigures.run(
      { layers, regions, seams, laid, settings, overrides: [] },
      { kernel: await testKernel, tick: () => {} },
    )
    expect(lengthMm).toBeCloseTo(await travel('on'), 6)
    expect(savedMm! / ((await travel('off')) - (await travel('on')))).toBeCloseTo(1, 1)
  })

  it.each(demoParts)('finished loop by loop save what laying both ways shows: $name', async ({ key }) => {
    const on = await layOut(demo(key))
    const travel = total(on.path, code.travel)
    const saved = total((await layOut(demo(key), { finishEachLoop: 'off' })).path, code.travel) - travel
    const { savedMm } = travelFigures.run({ ...on, overrides: [] }, { kernel: await testKernel, tick: () => {} })
    expect(Math.abs(savedMm! - saved)).toBeLessThan(0.1 * Math.abs(saved) + 900)
    const cube = await layOut(blockMesh(20, 20, 20))
    expect(travelFigures.run({ ...cube, overrides: [] }, { kernel: await testKernel, tick: () => {} }).savedMm).toBe(0)
  })

  it('wider than the bore save time only once their count drops with it (CP-N9, common practice)', async () => {
    const time = async (values: SettingValues) =>
      timeOf(await layOut(blockMesh(40, 40, 8), { infillDensity: 0, topLayers: 0, bottomLayers: 0, ...values }))
    const narrow = await time({ lineWidth: 0.4, wallCount: 3 })
    const wide = await time({ lineWidth: 0.6, wallCount: 3 })
    const fewer = await time({ lineWidth: 0.6, wallCount: 2 })
    expect(Math.abs(wide / narrow - 1)).toBeLessThan(0.05)
    expect(fewer / narrow).toBeLessThan(0.75)
  })

  it('go inside first or outside first', async () => {
    for (const [wallOrder, first] of [
      ['insideFirst', code.innerWall],
      ['outsideFirst', code.outerWall],
    ] as const) {
      const { path } = await layOut(await ring(), { wallOrder })
      const layer = [...path.feature.subarray(path.layerStart[3], path.layerStart[4])]
      expect(layer.find((feature) => feature === code.innerWall || feature === code.outerWall)).toBe(first)
    }
  })

  const seams = ({ path }: LaidOut): [number, number][] =>
    Array.from({ length: path.layerStart.length - 1 }, (_, layer) => {
      let m = path.layerStart[layer]!
      while (path.feature[m] !== code.outerWall) m++
      return [path.x[m]!, path.y[m]!]
    })

  it('begin where the seam is wanted', async () => {
    const { Manifold } = await solids
    const rod = meshOf(Manifold.cylinder(3, 8, 8, 64))
    for (const [x, y] of seams(await layOut(rod, { seam: 'rear' }))) expect([Math.abs(x) < 0.5, y > 7]).toEqual([true, true])
    const aligned = seams(await layOut(rod, { seam: 'aligned' }))
    for (const [x, y] of aligned) expect(Math.hypot(x - aligned[0]![0], y - aligned[0]![1])).toBeLessThan(0.1)
    const scattered = seams(await layOut(rod, { seam: 'scattered' })).map(([x, y]) => Math.atan2(y, x))
    expect(Math.max(...scattered) - Math.min(...scattered)).toBeGreaterThan(3)
    // An angle piece has one hollow corner, at the origin, a line's half inside.
    const angle = joined(moved(blockMesh(20, 10, 3), 0, -5, 0), moved(blockMesh(10, 20, 3), -5, 0, 0))
    for (const [x, y] of seams(await layOut(angle, { seam: 'hidden' }))) expect(Math.hypot(x, y)).toBeLessThan(0.5)
  })
})
