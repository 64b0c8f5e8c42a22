import { demoParts } from '@sable/demo/scenario'
import fc from 'fast-check'
import type { CrossSection } from 'manifold-3d'
import { beforeAll, describe, expect, it } from 'vitest'
import type { PolygonKernel } from '../geometry/polygon'
import { place } from '../mesh/place'
import { type Coverage, coverageOf } from '../testing/coverage'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { demo, movesOf } from '../testing/paths'
import { meshOf, solids } from '../testing/solids'
import { code } from './toolpath'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})

const add = (a: Coverage, b: Coverage): Coverage =>
  Object.fromEntries(Object.keys(a).map((key) => [key, a[key as keyof Coverage] + b[key as keyof Coverage]])) as unknown as Coverage

describe('solid places are filled, once', () => {
  it.each(
    demoParts.flatMap(({ name, make }) => [1, 3].map((wallCount) => ({ name, wallCount, make }))),
  )('$name with $wallCount walls: laid volume within a fiftieth of the part, nothing outside, hardly anything laid twice', async ({
    name,
    wallCount,
    make,
  }) => {
    const laid = await layOut(place(make()), { infillDensity: 100, wallCount })
    const count = laid.layers.top.length
    const layers = Array.from({ length: 16 }, (_, i) => Math.floor((i * (count - 1)) / 15))
    const sum = layers.map((layer) => coverageOf(laid, layer, kernel)).reduce(add)
    expect(Math.abs(sum.laid / sum.part - 1)).toBeLessThan(0.02)
    expect((sum.strips - sum.covered) / sum.strips).toBeLessThan(0.025)
    // Lines that overlap by less than a tenth of their width do not meet when they are a tenth narrower. What is left are
    // square ends of lines that meet a wall aslant; in a narrow place filled with short lines they are more than a hundredth.
    const narrowed = layers.map((layer) => coverageOf(laid, layer, kernel, true, 0.9)).reduce(add)
    expect((narrowed.strips - narrowed.covered) / narrowed.strips).toBeLessThan(name === 'shade' && wallCount === 1 ? 0.015 : 0.01)
    expect(sum.outside / sum.part).toBeLessThan(1e-3)
  })

  describe.each([0.25, 0.4, 0.6, 0.8])('walls of any thickness from half a line to eight, lines of %s mm', (lineWidth) => {
    const shapes = {
      straight: (kernel, t) => kernel.CrossSection.square([30, t]),
      bent: (kernel, t) =>
        new kernel.CrossSection([
          [0, 0],
          [20, 0],
          [20, 20],
          [20 - t, 20],
          [20 - t, t],
          [0, t],
        ]),
      ring: (kernel, t) => kernel.CrossSection.circle(12, 96).subtract(kernel.CrossSection.circle(12 - t, 96)),
    } satisfies Record<string, (kernel: Awaited<typeof solids>, thickness: number) => CrossSection>
    const filled = async (make: (typeof shapes)[keyof typeof shapes], thickness: number): Promise<number> => {
      const values = { infillDensity: 100, wallCount: 3, lineWidth, leastLineWidth: lineWidth / 2 }
      const { laid, part } = coverageOf(await layOut(meshOf(make(await solids, thickness).extrude(0.6)), values), 1, kernel)
      return laid / part
    }

    it.each(Object.entries(shapes))('%s', async (_, make) => {
      // Just at and above every whole number of lines the innermost rim is a sliver: out and back on one line.
      for (const lines of [0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 7]) {
        for (const more of [0, 0.005, 0.01]) {
          const thickness = lines * lineWidth + more
          expect(Math.abs((await filled(make, thickness)) - 1), `${thickness} mm`).toBeLessThan(0.03)
        }
      }
      await fc.assert(
        fc.asyncProperty(fc.integer({ min: 0, max: Math.floor((7.5 * lineWidth) / 0.005) }), async (step) => {
          expect(Math.abs((await filled(make, lineWidth / 2 + step * 0.005)) - 1)).toBeLessThan(0.03)
        }),
        { numRuns: 30, seed: 12 },
      )
    })
  })

  it('walls of 2 mm by lines of 0.6 mm have one line in their middle, and are full within a fiftieth', async () => {
    const { CrossSection } = await solids
    const plate = await layOut(meshOf(CrossSection.square([30, 2]).extrude(0.6)), { lineWidth: 0.6, wallCount: 1, infillDensity: 100 })
    const { laid, part } = coverageOf(plate, 1, kernel)
    expect(Math.abs(laid / part - 1)).toBeLessThan(0.02)
    const tube = meshOf(CrossSection.circle(12, 96).subtract(CrossSection.circle(10, 96)).extrude(0.6))
    const { regions, layers } = await layOut(tube, { lineWidth: 0.6, wallCount: 1 })
    expect(regions.thin.closed.length).toBe(layers.top.length)
  })

  // Its wall swells and thins with every flute, between 1.5 and 1.8 mm: about two, three or seven lines.
  it.each([
    0.25, 0.4, 0.6, 0.8,
  ])('a fluted wall never falls into scraps, whatever its scale: the shade by lines of %s mm', async (lineWidth) => {
    const retractions: number[] = []
    for (let scale = 0.5; scale < 1.55; scale += 0.2) {
      const mesh = demo('shade')
      // Flattened: fewer layers of the same outlines.
      const flat = { ...mesh, positions: mesh.positions.map((v, i) => v * (i % 3 === 2 ? (0.04 * lineWidth) / 0.4 : scale)) }
      const laid = await layOut(flat, { lineWidth, layerHeight: lineWidth / 2, firstLayerHeight: lineWidth / 2, infillDensity: 100 })
      const layers = [...laid.layers.top.keys()]
      const sum = layers.map((layer) => coverageOf(laid, layer, kernel)).reduce(add)
      expect(Math.abs(sum.laid / sum.part - 1), `laid at ${scale}`).toBeLessThan(0.025)
      expect((sum.strips - sum.covered) / sum.strips, `twice at ${scale}`).toBeLessThan(0.035)
      retractions.push(movesOf(laid.path, code.retract).length / layers.length)
    }
    // Another line at most goes on elsewhere than where one ends.
    for (const [i, count] of retractions.entries()) expect(count, `scale ${0.5 + i / 5}`).toBeLessThanOrEqual(1)
  })

  it('holds for random outlines', async () => {
    const { CrossSection } = await solids
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.double({ min: 4, max: 14, noNaN: true }), { minLength: 4, maxLength: 14 }),
        fc.integer({ min: 1, max: 5 }),
        async (radii, wallCount) => {
          const points = radii.map((r, i): [number, number] => [
            r * Math.cos((2 * Math.PI * i) / radii.length),
            r * Math.sin((2 * Math.PI * i) / radii.length),
          ])
          const laid = await layOut(meshOf(new CrossSection([points]).extrude(0.6)), { infillDensity: 100, wallCount })
          const { laid: volume, part, outside } = coverageOf(laid, 1, kernel)
          expect(Math.abs(volume / part - 1)).toBeLessThan(0.03)
          expect(outside / part).toBeLessThan(2e-3)
        },
      ),
      { numRuns: 40, seed: 11 },
    )
  })

  it('fills a wall of any thickness from one line up', async () => {
    const { Manifold } = await solids
    for (let thickness = 0.25; thickness < 3; thickness += 0.11) {
      const laid = await layOut(meshOf(Manifold.cube([30, thickness, 0.6], true).translate([0, 0, 0.3])), { infillDensity: 100 })
      const { laid: volume, part } = coverageOf(laid, 1, kernel)
      // A strip between two walls that is thinner than the thinnest line stays open: half a line of so thin a wall.
      expect(Math.abs(volume / part - 1), `${thickness} mm`).toBeLessThan(0.2)
    }
  })

  it('reports what is too thin as lost, and what is left unfilled on request', async () => {
    const { Manifold } = await solids
    const fin = meshOf(Manifold.cube([30, 0.15, 1], true).translate([0, 0, 0.5]))
    const lost = (await layOut(fin)).regions.lost
    expect(lost[2]).toBeCloseTo(30 * 0.15, 1)
    const thin = meshOf(Manifold.cube([30, 0.3, 1], true).translate([0, 0, 0.5]))
    expect((await layOut(thin)).regions.lost[2]).toBeLessThan(0.2)
    expect((await layOut(thin, { thinLines: 'left' })).regions.lost[2]).toBeCloseTo(30 * 0.3, 1)
    // Room for two walls is room for two walls, though nothing will lie between them.
    for (const thickness of [0.9, 1.1]) {
      const plate = await layOut(meshOf(Manifold.cube([30, thickness, 1], true).translate([0, 0, 0.5])), { thinLines: 'left' })
      const { laid, part } = coverageOf(plate, 2, kernel)
      expect(laid / part).toBeCloseTo(0.8 / thickness, 1)
    }
  })
})
