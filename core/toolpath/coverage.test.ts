import { demoParts } from '@sable/demo/scenario'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import type { PolygonKernel } from '../geometry/polygon'
import { place } from '../mesh/place'
import { type Coverage, coverageOf } from '../testing/coverage'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { meshOf, solids } from '../testing/solids'

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

  // Where an odd number of lines just fits, the innermost rim is a sliver: out and back on one line.
  it.each([0.4, 0.6, 0.8])('plates as thick as an odd number of lines of %s mm, or a hair more', async (lineWidth) => {
    const { CrossSection } = await solids
    for (const lines of [1, 3, 5]) {
      for (const more of [0, 0.005, 0.01, 0.02]) {
        const plate = meshOf(CrossSection.square([30, lines * lineWidth + more]).extrude(0.6))
        const laid = await layOut(plate, { infillDensity: 100, wallCount: 3, lineWidth })
        const { laid: volume, part } = coverageOf(laid, 1, kernel)
        expect(Math.abs(volume / part - 1), `${lines} lines and ${more} mm`).toBeLessThan(0.03)
      }
    }
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
  })
})
