import { describe, expect, it } from 'vitest'
import { groupArea, groupCount } from '../geometry/contours'
import { Scopes } from '../profile/overrides'
import { slice } from '../slicing/slice'
import { testKernel } from '../testing/kernel'
import { everywhere, settingsOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { findRegions } from './findRegions'

const heights = everywhere({ layerHeight: 0.2, firstLayerHeight: 0.2 })
const lines = { lineWidth: 0.4, wallCount: 2, topLayers: 3, bottomLayers: 4 }

describe('dividing layers into walls, tops, bottoms and infill', () => {
  it('lays walls a line apart, the first half a line inside', async () => {
    const kernel = await testKernel
    const { walls } = findRegions(slice(blockMesh(20, 10, 4), heights, kernel), new Scopes(settingsOf(lines)), 0.4, kernel)
    expect(groupArea(walls[0]!, 8)).toBeCloseTo(19.6 * 9.6, 2)
    expect(groupArea(walls[1]!, 8)).toBeCloseTo(18.8 * 8.8, 2)
  })

  it('finds as many solid layers at the bottom and at the top of a block as are asked', async () => {
    const kernel = await testKernel
    const { topBottom, infill } = findRegions(slice(blockMesh(20, 10, 4), heights, kernel), new Scopes(settingsOf(lines)), 0.4, kernel)
    const inside = 18.4 * 8.4
    const solid = Array.from({ length: groupCount(topBottom) }, (_, layer) => groupArea(topBottom, layer) > 0.99 * inside)
    expect(solid.map(Number).join('')).toBe(`1111${'0'.repeat(13)}111`)
    for (let layer = 0; layer < groupCount(topBottom); layer++)
      expect(groupArea(topBottom, layer) + groupArea(infill, layer)).toBeCloseTo(inside, 1)
  })

  it('lays top or bottom under a step, and only there', async () => {
    const kernel = await testKernel
    const stepped = joined(blockMesh(20, 20, 4), moved(blockMesh(10, 20, 4), -5, 0, 4))
    const { topBottom } = findRegions(slice(stepped, heights, kernel), new Scopes(settingsOf(lines)), 0.4, kernel)
    // Layer 19 is the last one below the step; half of it, less the walls on three sides, looks up.
    const seen = groupArea(topBottom, 19)
    expect(seen).toBeGreaterThan(9 * 18.4)
    expect(seen).toBeLessThan(10 * 18.4)
    expect(groupArea(topBottom, 16)).toBe(0)
    expect(groupArea(topBottom, 21)).toBe(0)
  })

  it('agrees with comparing every layer with each of its neighbours, on a curved body', async () => {
    const { Manifold } = await solids
    const kernel = await testKernel
    const layers = slice(meshOf(Manifold.sphere(8, 48).translate([0, 0, 8])), heights, kernel)
    const { topBottom, infill } = findRegions(layers, new Scopes(settingsOf(lines)), 0.4, kernel)
    const bare = findRegions(layers, new Scopes(settingsOf({ ...lines, topLayers: 0, bottomLayers: 0 })), 0.4, kernel)
    for (const layer of [3, 12, 30, 55, 70, 76]) {
      const expected = kernel.run((ops) => {
        const inside = ops.read(bare.infill, layer)
        let covered = inside
        for (let k = -4; k <= 3; k++)
          covered =
            layer + k < 0 || layer + k >= groupCount(topBottom) ? ops.empty() : ops.intersect(covered, ops.read(layers.outlines, layer + k))
        return ops.area(inside) - ops.area(covered)
      })
      // Rims are thinned to an eighth of a line and slivers go to the infill, so areas agree to a part of a rim's width.
      const rim = 2 * Math.PI * 8 * 0.1
      expect(Math.abs(groupArea(topBottom, layer) - expected)).toBeLessThan(rim)
      expect(groupArea(topBottom, layer) + groupArea(infill, layer)).toBeCloseTo(groupArea(bare.infill, layer), 0)
    }
  })

  it('lays no wall where the part is thinner than a line', async () => {
    const kernel = await testKernel
    const { walls } = findRegions(slice(blockMesh(20, 0.3, 2), heights, kernel), new Scopes(settingsOf(lines)), 0.4, kernel)
    expect(groupArea(walls[0]!, 3)).toBe(0)
  })
})
