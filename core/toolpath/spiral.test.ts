import { beforeAll, describe, expect, it } from 'vitest'
import { polygonArea } from '../geometry/contours'
import type { Mesh } from '../mesh/mesh'
import type { SettingValues } from '../profile/settings'
import { seamLength } from '../regions/seamLength'
import { type LaidOut, layOut } from '../testing/layOut'
import { lengthOf } from '../testing/paths'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { isLaid, moveCount } from './toolpath'

const spiral: SettingValues = { spiralWall: 'on', bottomLayers: 3, layerHeight: 0.2, firstLayerHeight: 0.2 }
let Manifold: Awaited<typeof solids>['Manifold']
beforeAll(async () => {
  ;({ Manifold } = await solids)
})
/** Its first move above the bottom. */
const firstOf = ({ path }: LaidOut): number => path.layerStart[3]!
/** Round, square, leaning, thin, tiny and large: each a vessel. */
const vessels: readonly (readonly [string, () => Mesh])[] = [
  ['a round pot', () => meshOf(Manifold.cylinder(24, 20, 20, 96))],
  ['a square one', () => blockMesh(30, 30, 12)],
  ['a cone that opens', () => meshOf(Manifold.cylinder(20, 12, 18, 80))],
  [
    'a twisted prism',
    () =>
      meshOf(
        Manifold.extrude(
          [
            [
              [-12, -9],
              [12, -9],
              [12, 9],
              [-12, 9],
            ],
          ],
          20,
          40,
          60,
        ),
      ),
  ],
  ['a tiny one', () => meshOf(Manifold.cylinder(4, 2.5, 2.5, 32))],
  ['a large one', () => meshOf(Manifold.cylinder(60, 80, 70, 200))],
  [
    'a cup that is modelled hollow',
    () => meshOf(Manifold.cylinder(15, 14, 16, 64).subtract(Manifold.cylinder(14, 12.6, 14.6, 64).translate([0, 0, 1]))),
  ],
]

describe('a spiral wall', () => {
  it.each(vessels)('%s is one line that never stops, goes down or leaves the wall', async (_, mesh) => {
    const laid = await layOut(mesh(), spiral)
    const { path, layers } = laid
    let lowest = layers.top[2]!
    for (let m = firstOf(laid); m < moveCount(path); m++) {
      // The way to its beginning is the last that lays nothing.
      if (!isLaid(path.feature[m]!)) {
        expect(path.z[m + 1]! - layers.top[2]!).toBeLessThan(1e-9)
        continue
      }
      expect(path.z[m + 1]!).toBeGreaterThanOrEqual(lowest - 1e-9)
      expect(path.z[m + 1]! - path.z[m]!).toBeLessThan(0.21)
      lowest = path.z[m + 1]!
    }
    expect(lowest).toBeCloseTo(layers.top.at(-1)!, 9)
    // The first that lays is not followed by any that does not.
    const laying = [...path.feature.subarray(firstOf(laid))].map(isLaid)
    expect(laying.slice(laying.indexOf(true))).not.toContain(false)
  })

  it.each(vessels)('of %s lays width × height × length of every turn: what grows at first ends level at the top', async (_, mesh) => {
    const laid = await layOut(mesh(), spiral)
    const { path, layers, regions, settings } = laid
    const [outer] = regions.walls
    let wanted = 0
    for (let layer = 3; layer < layers.top.length; layer++) {
      expect(outer!.groupStart[layer + 1]! - outer!.groupStart[layer]!).toBe(1)
      const p = outer!.groupStart[layer]!
      let round = 0
      for (let i = outer!.polygonStart[p]!, j = outer!.polygonStart[p + 1]! - 1; i < outer!.polygonStart[p + 1]!; j = i++)
        round += Math.hypot(outer!.xy[2 * i]! - outer!.xy[2 * j]!, outer!.xy[2 * i + 1]! - outer!.xy[2 * j + 1]!)
      wanted += round * layers.height[layer]! * settings.lineWidth
    }
    let laidOut = 0
    for (let m = firstOf(laid); m < moveCount(path); m++) laidOut += path.area[m]! * lengthOf(path, m)
    expect(laidOut / wanted).toBeGreaterThan(0.98)
    expect(laidOut / wanted).toBeLessThan(1.02)
  })

  it('keeps its outside on the part, at every height: half a line within the outline there', async () => {
    // Radius 12 to 18 over 20 mm; where a turn rises it goes from one outline to the next.
    const laid = await layOut(meshOf(Manifold.cylinder(20, 12, 18, 160)), spiral)
    const { path, settings } = laid
    for (let m = firstOf(laid) + 60; m < moveCount(path); m += 7) {
      if (path.area[m] === 0) continue
      const radius = 12 + (6 * (path.z[m]! - 0.1)) / 20
      // Chords of 160 sides, and a layer's own slope.
      expect(Math.abs(Math.hypot(path.x[m]!, path.y[m]!) + settings.lineWidth / 2 - radius)).toBeLessThan(0.08)
    }
  })

  it('has no seam above its bottom, no infill and no supports, and less plastic than walls and infill', async () => {
    const laid = await layOut(meshOf(Manifold.cylinder(24, 20, 30, 96)), { ...spiral, supports: 'plain' })
    expect(seamLength(laid.regions, laid.layers, laid.settings)).toBeCloseTo(0.6, 6)
    const { groupStart } = laid.regions.infill
    expect(groupStart.at(-1)! - groupStart[3]!).toBe(0)
    expect(laid.regions.support.body.polygonStart.length).toBe(1)
    // Its bottom is solid: outline and lines of three layers.
    const bottom = laid.path
    let volume = 0
    for (let m = 0; m < firstOf(laid); m++) volume += bottom.area[m]! * lengthOf(bottom, m)
    const solid = [0, 1, 2].reduce((sum, layer) => {
      const { outlines, height } = laid.layers
      return sum + height[layer]! * polygonArea(outlines, outlines.groupStart[layer]!)
    }, 0)
    expect(volume / solid).toBeGreaterThan(0.95)
  })

  it('follows the outside where the part is modelled hollow', async () => {
    const hollow = await layOut(vessels[6]![1](), spiral)
    const full = await layOut(meshOf(Manifold.cylinder(15, 14, 16, 64)), spiral)
    const lengths = [hollow, full].map((laid) => {
      let sum = 0
      for (let m = firstOf(laid); m < moveCount(laid.path); m++) if (laid.path.area[m]! > 0) sum += lengthOf(laid.path, m)
      return sum
    })
    expect(lengths[0]! / lengths[1]!).toBeCloseTo(1, 2)
  })

  it('is refused in a sentence, with the height, where the part is no vessel', async () => {
    const two = joined(blockMesh(20, 20, 2), moved(blockMesh(6, 20, 8), -7, 0, 2), moved(blockMesh(6, 20, 8), 7, 0, 2))
    await expect(layOut(two, spiral)).rejects.toThrow(/no vessel.*at z 2\.2 mm there are 2 bodies/)
    const holed = meshOf(
      Manifold.cube([30, 30, 10], true)
        .subtract(Manifold.cylinder(20, 3, 3, 24, true).translate([-8, 0, 0]))
        .subtract(Manifold.cylinder(20, 3, 3, 24, true).translate([8, 0, 0])),
    )
    await expect(layOut(holed, spiral)).rejects.toThrow(/there are 2 holes/)
    await expect(layOut(meshOf(Manifold.cylinder(10, 8, 0.1, 48)), spiral)).rejects.toThrow(/thinner than the line/)
    // Bottom layers up to where it is one: a plate with two towers never is.
    await expect(layOut(two, { ...spiral, bottomLayers: 30 })).rejects.toThrow(/at z 6\.2 mm/)
  })
})
