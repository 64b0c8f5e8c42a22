import { describe, expect, it } from 'vitest'
import { meshOf, solids } from '../testing/solids'
import { measureArea, measureBox, measureSize, measureVolume } from './measure'
import { place } from './place'

describe('measuring and placing', () => {
  it('finds the volumes and areas that an independent solid-modelling kernel finds', async () => {
    const { Manifold } = await solids
    const bodies = [
      Manifold.sphere(17, 64),
      Manifold.cube([30, 20, 10]).subtract(Manifold.cylinder(40, 4, 4, 48).translate([15, 10, -5])),
      Manifold.cylinder(25, 8, 3, 40).add(Manifold.sphere(6, 32).translate([0, 0, 25])),
    ]
    for (const body of bodies) {
      const mesh = meshOf(body)
      expect(measureVolume(mesh) / body.volume()).toBeCloseTo(1, 5)
      expect(measureArea(mesh) / body.surfaceArea()).toBeCloseTo(1, 5)
    }
  })

  it('sets a turned and scaled part on the bed and keeps its volume', async () => {
    const { Manifold } = await solids
    const mesh = meshOf(Manifold.cube([30, 20, 10]).translate([100, -40, 7]))
    const placed = place(mesh, { scale: 2, rotateDeg: [90, 0, 30] })
    const { min, max } = measureBox(placed)
    expect(min[2]).toBeCloseTo(0, 9)
    expect(min[0] + max[0]).toBeCloseTo(0, 9)
    expect(min[1] + max[1]).toBeCloseTo(0, 9)
    expect(measureVolume(placed)).toBeCloseTo(8 * 6000, 3)
  })

  it('turns by quarters exactly, so that flat faces stay flat', async () => {
    const { Manifold } = await solids
    const mesh = meshOf(Manifold.cube([30, 20, 10]))
    expect(measureSize(place(mesh, { scale: 1, rotateDeg: [90, 0, 0] }))).toEqual([30, 10, 20])
    expect(measureSize(place(mesh, { scale: 1, rotateDeg: [0, 270, 0] }))).toEqual([10, 20, 30])
  })
})
