import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { blockMesh } from '../testing/solids'
import { measureSize } from './measure'
import { sixOrientations } from './orientations'
import { place, rotationMatrix } from './place'

describe('six orientations', () => {
  it('turn a block so that each of its sides comes down, exactly', () => {
    const ways = sixOrientations({ scale: 1, rotateDeg: [0, 0, 0] })
    const sizes = ways.map(({ placement }) => measureSize(place(blockMesh(30, 20, 10), placement)))
    expect(sizes).toEqual([
      [30, 20, 10],
      [30, 20, 10],
      [30, 10, 20],
      [30, 10, 20],
      [10, 20, 30],
      [10, 20, 30],
    ])
    // Six sides, each down once.
    const down = ways.map(({ placement }) => rotationMatrix(placement.rotateDeg, 1).slice(6).map(Math.round).join())
    expect(new Set(down).size).toBe(6)
  })

  it('carry a load’s axis along with the part', () => {
    const [, , front, , left] = sixOrientations({ scale: 1, rotateDeg: [0, 0, 0] })
    const told = (way: typeof front) =>
      (['x', 'y', 'z'] as const).map((axis) => way!.axisOf(axis)).map(({ axis, reversed }) => `${reversed ? '-' : ''}${axis}`)
    // A quarter turn about x sends y up and z to the front.
    expect(told(front)).toEqual(['x', 'z', '-y'])
    expect(told(left)).toEqual(['z', 'y', '-x'])
  })

  it('start from however the part lies: angles make up the same rotation again', () => {
    const angle = fc.integer({ min: -180, max: 180 })
    fc.assert(
      fc.property(fc.tuple(angle, angle, angle), (rotateDeg) => {
        const [as] = sixOrientations({ scale: 2, rotateDeg })
        const [before, after] = [rotationMatrix(rotateDeg, 1), rotationMatrix(as!.placement.rotateDeg, 1)]
        for (let i = 0; i < 9; i++) expect(after[i]).toBeCloseTo(before[i]!, 6)
        expect(as!.placement.scale).toBe(2)
      }),
    )
  })
})
