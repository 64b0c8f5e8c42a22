import { describe, expect, it } from 'vitest'
import { meshOf, partOf, solids } from '../testing/solids'
import { faceAt } from './faceAt'

/** Area of facets, mm². */
function areaOf({ positions, triangles }: { positions: Float64Array; triangles: Uint32Array }, facets: Uint32Array): number {
  let sum = 0
  for (const facet of facets) {
    const [a, b, c] = [0, 1, 2].map((k) => positions.subarray(3 * triangles[3 * facet + k]!, 3 * triangles[3 * facet + k]! + 3)) as [
      Float64Array,
      Float64Array,
      Float64Array,
    ]
    const [u, v] = [b.map((x, i) => x - a[i]!), c.map((x, i) => x - a[i]!)]
    sum += Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2
  }
  return sum
}

describe('a face of a part', () => {
  it('is the side of a block that was pointed at, and all of it', async () => {
    const { Manifold } = await solids
    const { mesh, edges } = partOf('block', meshOf(Manifold.cube([30, 20, 10])))
    const of = (at: readonly [number, number, number]): number => areaOf(mesh, faceAt(mesh, edges, at, 20))
    expect(of([15, 10, 10])).toBeCloseTo(600, 6)
    expect(of([30, 3, 2])).toBeCloseTo(200, 6)
    // Beside an edge the nearer of both.
    expect(of([29.9, 10, 10.05])).toBeCloseTo(600, 6)
    // A right angle and more takes all of it.
    expect(areaOf(mesh, faceAt(mesh, edges, [15, 10, 10], 90))).toBeCloseTo(2200, 6)
  })

  it('goes round a bore, facet by facet, and no further', async () => {
    const { Manifold } = await solids
    const bored = Manifold.cube([30, 30, 10]).subtract(Manifold.cylinder(10, 5, 5, 64).translate([15, 15, 0]))
    const { mesh, edges } = partOf('bored', meshOf(bored))
    const round = areaOf(mesh, faceAt(mesh, edges, [20, 15, 5], 20))
    expect(round / (2 * Math.PI * 5 * 10)).toBeGreaterThan(0.99)
    expect(round / (2 * Math.PI * 5 * 10)).toBeLessThan(1)
    // Of facets that turn by more than asked for, one strip.
    expect(areaOf(mesh, faceAt(mesh, edges, [20, 15, 5], 2))).toBeLessThan(round / 20)
  })
})
