import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groupArea } from '../geometry/contours'
import { repair } from '../mesh/repair'
import { testKernel } from '../testing/kernel'
import { everywhere } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, solids, soupOf } from '../testing/solids'
import { layerHeights } from './layerHeights'
import { layerCount } from './layers'
import { slice } from './slice'

const heights = everywhere({ layerHeight: 0.5, firstLayerHeight: 0.5 })

describe('slicing', () => {
  it('cuts the areas that an independent solid-modelling kernel cuts', async () => {
    const { Manifold } = await solids
    const kernel = await testKernel
    const bodies = [
      Manifold.sphere(12, 96).translate([0, 0, 12]),
      Manifold.cube([30, 20, 14], true)
        .translate([0, 0, 7])
        .subtract(Manifold.cylinder(40, 6, 3, 64).translate([4, 0, -3])),
      Manifold.cylinder(16, 9, 2, 60).add(Manifold.cube([5, 26, 6], true).translate([0, 0, 3])),
    ]
    for (const body of bodies) {
      const layers = slice(meshOf(body), heights, kernel)
      for (let i = 1; i < layerCount(layers) - 1; i++) {
        const expected = body.slice(layers.top[i]! - layers.height[i]! / 2).area()
        // Contours are thinned to 0.0125 mm on purpose; that is all they may differ by.
        expect(Math.abs(groupArea(layers.outlines, i) - expected)).toBeLessThan(0.004 * expected + 0.02)
      }
      expect(layers.notes).toEqual([])
    }
  })

  it('unites touching and overlapping bodies as that kernel does, and says that they overlap', async () => {
    const { Manifold } = await solids
    const kernel = await testKernel
    await fc.assert(
      fc.asyncProperty(
        fc.array(
          fc.record({
            x: fc.integer({ min: -8, max: 8 }),
            y: fc.integer({ min: -8, max: 8 }),
            w: fc.integer({ min: 2, max: 12 }),
            d: fc.integer({ min: 2, max: 12 }),
          }),
          { minLength: 2, maxLength: 6 },
        ),
        async (blocks) => {
          const layers = slice(joined(...blocks.map(({ x, y, w, d }) => moved(blockMesh(w, d, 3), x, y, 0))), heights, kernel)
          const united = Manifold.union(blocks.map(({ x, y, w, d }) => Manifold.cube([w, d, 3], true).translate([x, y, 1.5])))
          const expected = united.slice(1.25).area()
          expect(groupArea(layers.outlines, 2)).toBeCloseTo(expected, 1)
          const summed = blocks.reduce((sum, { w, d }) => sum + w * d, 0)
          if (summed > expected * 1.1) expect(layers.notes.join()).toMatch(/overlaps itself/)
        },
      ),
      { numRuns: 40, seed: 4 },
    )
  })

  it('keeps a hollow hollow', async () => {
    const outer = blockMesh(20, 20, 20)
    const inner = moved(blockMesh(10, 10, 10), 0, 0, 5)
    const cavity = { positions: inner.positions, triangles: inner.triangles.slice().reverse() }
    const layers = slice(joined(outer, cavity), heights, await testKernel)
    expect(groupArea(layers.outlines, 20)).toBeCloseTo(300, 1)
    expect(groupArea(layers.outlines, 2)).toBeCloseTo(400, 1)
  })

  it('closes the contour where the surface is open, and says at which height', async () => {
    const block = blockMesh(10, 10, 10)
    // Without one side's two triangles three sides remain; the fourth is drawn straight.
    const open = { positions: block.positions, triangles: block.triangles.filter((_, i) => ![4, 5].includes(Math.floor(i / 3))) }
    const layers = slice(open, heights, await testKernel)
    expect(groupArea(layers.outlines, 10)).toBeCloseTo(100, 1)
    expect(layers.notes.join()).toMatch(/closed with straight lines on 20 layers between z = 0\.25 and 9\.75 mm/)
  })

  it('has a layer where the part reaches half-way into it', () => {
    const of = (height: number, firstLayerHeight = 0.2) =>
      layerHeights(blockMesh(5, 5, height), everywhere({ layerHeight: 0.2, firstLayerHeight }))
    expect(of(10).top).toHaveLength(50)
    expect(of(10.09).top).toHaveLength(50)
    expect(of(10.11).top).toHaveLength(51)
    expect(of(0.05).top).toHaveLength(1)
    const { top, height } = of(3, 0.3)
    expect(top[0]).toBe(0.3)
    expect(height[0]).toBe(0.3)
    expect(top[1]).toBeCloseTo(0.5, 12)
  })

  it('gives a scan of open and crossing places closed contours all the same', async () => {
    const { Manifold } = await solids
    const knot = meshOf(Manifold.sphere(9, 40))
    const soup = soupOf(joined(knot, moved(knot, 7, 2, 0)))
    const damaged = repair({ corners: soup.filter((_, i) => Math.floor(i / 9) % 97 !== 0), notes: [] }).mesh
    const layers = slice(
      { positions: damaged.positions.map((v, i) => (i % 3 === 2 ? v + 9 : v)), triangles: damaged.triangles },
      heights,
      await testKernel,
    )
    const whole = Manifold.sphere(9, 40)
      .add(Manifold.sphere(9, 40).translate([7, 2, 0]))
      .translate([0, 0, 9])
    for (let i = 4; i < layerCount(layers) - 4; i++) {
      const expected = whole.slice(layers.top[i]! - 0.25).area()
      expect(Math.abs(groupArea(layers.outlines, i) - expected) / expected).toBeLessThan(0.05)
    }
  })
})
