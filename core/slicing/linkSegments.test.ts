import { beforeAll, describe, expect, it } from 'vitest'
import { isSameGroup } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import { Scopes } from '../profile/overrides'
import { findRegions } from '../regions/findRegions'
import { testKernel } from '../testing/kernel'
import { demo } from '../testing/paths'
import { everywhere, settingsOf } from '../testing/setups'
import { slice } from './slice'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})

describe('layers of upright sides', () => {
  it('are the same, point for point, however the sides are cut into triangles', () => {
    const { outlines, top } = slice(demo('carry-hook'), everywhere(), kernel)
    for (let layer = 1; layer < top.length; layer++) expect(isSameGroup(outlines, layer, layer - 1)).toBe(true)
  })

  it('have the same walls as when each is laid for itself', () => {
    const settings = settingsOf({ wallCount: 4 })
    const layers = slice(demo('carry-hook'), everywhere(), kernel)
    const regions = findRegions(layers, new Scopes(settings), 0.4, kernel)
    // A hair's shift of one point makes every layer another than its neighbours.
    const xy = layers.outlines.xy.slice()
    for (let layer = 0; layer < layers.top.length; layer++)
      xy[2 * layers.outlines.polygonStart[layers.outlines.groupStart[layer]!]!]! -= 1e-9 * (layer % 2)
    const apart = findRegions({ ...layers, outlines: { ...layers.outlines, xy } }, new Scopes(settings), 0.4, kernel)
    for (const [depth, wall] of regions.walls.entries()) {
      expect([...wall.groupStart]).toEqual([...apart.walls[depth]!.groupStart])
      expect(wall.xy.length).toBe(apart.walls[depth]!.xy.length)
      for (let i = 0; i < wall.xy.length; i++) expect(Math.abs(wall.xy[i]! - apart.walls[depth]!.xy[i]!)).toBeLessThan(1e-4)
    }
    expect([...regions.lost]).toEqual([...apart.lost].map((mm2) => expect.closeTo(mm2, 4)))
  })
})
