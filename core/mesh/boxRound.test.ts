import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { meshOf, partOf, solids, turnedAbout } from '../testing/solids'
import { boxRoundFaces, type UprightBox } from './boxRound'

const sizeOf = ({ minX, maxX, minY, maxY, fromZ, toZ }: UprightBox): number[] => [maxX - minX, maxY - minY, toZ - fromZ]

describe('the box round a face', () => {
  it('of a turned block is as wide as the side, flat, and so much around it; never under the bed', async () => {
    const { Manifold } = await solids
    const block = meshOf(Manifold.cube([30, 20, 10]).translate([-15, -10, 0]))
    fc.assert(
      fc.property(fc.double({ min: -44, max: 44, noNaN: true }), (degrees) => {
        const { mesh, edges } = partOf('block', turnedAbout(block, degrees))
        const angle = (degrees * Math.PI) / 180
        // A point of the side that faced +x.
        const box = boxRoundFaces(mesh, edges, [[15 * Math.cos(angle), 15 * Math.sin(angle), 4]], 2)
        const [width, depth, height] = sizeOf(box) as [number, number, number]
        expect(Math.min(width, depth)).toBeCloseTo(4, 6)
        expect(Math.max(width, depth)).toBeCloseTo(24, 6)
        expect(height).toBeCloseTo(12, 6)
        expect(box.fromZ).toBe(0)
        // Whichever of its sides is the wide one, that lies along the face.
        expect(Math.abs(Math.sin(((box.turn - degrees) * Math.PI) / 90))).toBeLessThan(1e-6)
      }),
    )
  })

  it('of a top is the smallest that holds it, and of two faces holds both', async () => {
    const { Manifold } = await solids
    const { mesh, edges } = partOf('block', turnedAbout(meshOf(Manifold.cube([30, 20, 10]).translate([-15, -10, 0])), 30))
    const top = boxRoundFaces(mesh, edges, [[0, 0, 10]], 1)
    expect(sizeOf(top).slice(0, 2).sort()).toEqual([expect.closeTo(22, 6), expect.closeTo(32, 6)])
    expect([top.fromZ, top.toZ]).toEqual([9, 11])
    const both = boxRoundFaces(
      mesh,
      edges,
      [
        [0, 0, 10],
        [15 * Math.cos(Math.PI / 6), 15 * Math.sin(Math.PI / 6), 4],
      ],
      1,
    )
    expect(both.fromZ).toBe(0)
    expect(sizeOf(both)[0]! * sizeOf(both)[1]!).toBeCloseTo(22 * 32, 4)
  })

  it('of a bore is as large as the bore, whatever its facets', async () => {
    const { Manifold } = await solids
    const bored = Manifold.cube([30, 30, 10]).subtract(Manifold.cylinder(10, 5, 5, 64).translate([15, 15, 0]))
    const { mesh, edges } = partOf('bored', meshOf(bored))
    const [width, depth] = sizeOf(boxRoundFaces(mesh, edges, [[20, 15, 5]], 0)) as [number, number]
    for (const side of [width, depth]) expect(side / 10).toBeCloseTo(1, 2)
  })
})
