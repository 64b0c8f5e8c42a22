import fc from 'fast-check'
import type { Manifold, ManifoldToplevel } from 'manifold-3d'
import { describe, expect, it } from 'vitest'
import { asModelled } from '../mesh/place'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, meshOf, partOf, solids } from '../testing/solids'
import { predict } from './predict'

type Shape = (kernel: ManifoldToplevel, a: number, b: number, c: number) => Manifold

/** Bodies of some millimetres, with edges and tips thinner than any line; a, b and c go from 0 to 1. */
const shapes: Readonly<Record<string, Shape>> = {
  rod: ({ Manifold }, a, b, c) => Manifold.cylinder(2 + 60 * a, 0.2 + 1.5 * b, 0.2 + 1.5 * c, 12 + Math.floor(30 * b)),
  box: ({ Manifold }, a, b, c) => Manifold.cube([0.2 + 12 * a * a, 0.2 + 12 * b * b, 0.2 + 12 * c * c]),
  cone: ({ Manifold }, a, b, c) => Manifold.cylinder(0.2 + 12 * a, 0.2 + 8 * b, 0, 4 + Math.floor(40 * c)),
  sheet: ({ Manifold }, a, b, c) => Manifold.cube([0.5 + 30 * a, 0.1 + b, 0.5 + 30 * c]),
  star: ({ CrossSection }, a, b, c) => {
    const tips = 4 + Math.floor(10 * a)
    const points = Array.from({ length: 2 * tips }, (_, i): [number, number] => {
      const r = i % 2 === 0 ? 1 + 5 * b : 0.1 + 2 * c
      return [r * Math.cos((Math.PI * i) / tips), r * Math.sin((Math.PI * i) / tips)]
    })
    return new CrossSection([points]).extrude(0.3 + 6 * a)
  },
  twist: ({ CrossSection }, a, b, c) => CrossSection.square([0.3 + 6 * a, 0.3 + 6 * b], true).extrude(1 + 8 * c, 10, 200 * a, [b, c]),
  ring: ({ CrossSection }, a, b) =>
    CrossSection.circle(0.2 + 2 * a, 16)
      .translate([0.3 + 2 * a + 5 * b, 0])
      .revolve(24),
  heap: ({ Manifold }, a, b, c) =>
    Manifold.cube([1 + 5 * a, 1 + 5 * b, 1 + 5 * c])
      .add(
        Manifold.cube([1 + 4 * b, 0.3 + c, 4 * a + 0.3])
          .rotate([90 * a, 90 * b, 0])
          .translate([2 * c, b, a]),
      )
      .add(
        Manifold.cube([0.4 + a, 4, 0.4 + b])
          .rotate([70 * c, 30 * a, 50])
          .translate([a, 3 * b, c]),
      ),
}

const part = fc.record({
  shape: fc.constantFrom(...Object.keys(shapes)),
  sizes: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0, max: 1, noNaN: true }))),
  turn: fc.oneof(fc.constant([0, 0, 0]), fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 0, max: 359 })))),
  scale: fc.constantFrom(1, 0.4, 0.1, 2),
})
const setup = fc.record({
  printer: fc.constantFrom(...starterPrinters),
  nozzle: fc.constantFrom(...starterNozzles),
  material: fc.constantFrom(...starterMaterials),
})
const profile = fc.record({
  layerHeight: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
  wallCount: fc.integer({ min: 0, max: 4 }),
  topLayers: fc.integer({ min: 0, max: 5 }),
  infillDensity: fc.constantFrom(0, 5, 15, 40, 100),
  infillPattern: fc.constantFrom('lines', 'grid', 'triangles', 'hexagons', 'cubic', 'gyroid', 'concentric', 'topPropping' as const),
  supports: fc.constantFrom('off', 'plain', 'branching' as const),
  brim: fc.constantFrom('none', 'outer', 'both' as const),
  ironing: fc.constantFrom('off', 'on' as const),
  topBottomPattern: fc.constantFrom('backAndForth', 'separate', 'concentric' as const),
})

describe('small parts', () => {
  it('are predicted, whatever their shape and profile, on every starter printer', async () => {
    const [kernel, bodies] = await Promise.all([testKernel, solids])
    fc.assert(
      fc.property(part, setup, profile, ({ shape, sizes: [a, b, c], turn, scale }, own, values) => {
        const mesh = meshOf(shapes[shape]!(bodies, a!, b!, c!).rotate(turn as [number, number, number]))
        fc.pre(mesh.triangles.length >= 12)
        const { timeS, filament } = predict(partOf('small', mesh), { ...asModelled, scale }, own, values, { kernel })
        expect(Number.isFinite(timeS + filament.massG)).toBe(true)
      }),
      { numRuns: 250, seed: 5 },
    )
  })

  it('may be rods on a tilted belt, whose last layers are all but points', async () => {
    const kernel = await testKernel
    const rod = partOf('rod', blockMesh(3, 6, 140))
    const { timeS } = predict(rod, { ...asModelled, scale: 0.4 }, setupOf('towline'), { layerHeight: 0.16 }, { kernel })
    expect(timeS).toBeGreaterThan(0)
  })
})
