import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import { describe, expect, it } from 'vitest'
import { bandsOf, drawnSolved, patchMoved, rangeAlong, strokesOf } from './solvedDrawing'

/** Two cells on each other, one facet on each of their fronts. */
const picture: SolvedPicture = {
  skin: {
    corners: Float32Array.from([0, 0, 0, 2, 0, 0, 0, 0, 1, 0, 0, 2, 2, 0, 2, 0, 0, 3]),
    moved: new Float32Array(18).fill(0.5),
    lines: Float32Array.from([0.3, 0.6]),
    layers: Float32Array.from([0.4, 0.8]),
    cell: Int32Array.from([0, 1]),
  },
  cells: {
    middles: Float32Array.from([1, 1, 1, 1, 1, 3]),
    size: [2, 2, 2],
    moved: Float32Array.from([0, 0, 0.1, 0.3, 0, 0.4]),
    lines: Float32Array.from([0.3, 0.6]),
    layers: Float32Array.from([0.4, 0.8]),
    way: Float32Array.from([1, 0, 0, 0, 0, 1]),
    isPressed: Uint8Array.from([0, 1]),
  },
  mostMm: 0.5,
  failsMoved: [0, 0, 0],
}

describe('a solved part', () => {
  it('wears how near it is to either limit or both, under the load that is shown', () => {
    expect([...drawnSolved(picture, 'lines', 1).shares].map((one) => one.toFixed(2))).toEqual(['0.30', '0.60'])
    expect([...drawnSolved(picture, 'layers', 0.5).shares].map((one) => one.toFixed(2))).toEqual(['0.20', '0.40'])
    // Both grow with the square of the load, and fail together.
    expect([...drawnSolved(picture, 'either', 1).shares].map((one) => one.toFixed(2))).toEqual(['0.50', '1.00'])
  })

  it('is cut open: what lies beyond goes, and what lies on the cut is shown, moved as its cell', () => {
    const { corners, moved, shares } = drawnSolved(picture, 'lines', 1, { axis: 2, at: 0.9 })
    // One facet of the skin, and two triangles for the cell that the cut goes through.
    expect([...shares].map((one) => one.toFixed(2))).toEqual(['0.30', '0.30', '0.30'])
    for (let i = 9; i < 27; i += 3) expect(corners[i + 2]).toBeCloseTo(0.9, 6)
    expect(moved[9 + 2]).toBeCloseTo(0.1, 6)
    expect(drawnSolved(picture, 'lines', 1, { axis: 2, at: 2 }).shares).toHaveLength(3)
    expect(drawnSolved(picture, 'lines', 1, { axis: 2, at: 9 }).shares).toHaveLength(2)
  })

  it('is told height by height, and how far it reaches', () => {
    const [low, high] = bandsOf(picture, 2)
    expect(low).toMatchObject({ z: 1 })
    expect(low!.lines).toBeCloseTo(0.6, 6)
    expect(high!.movedMm).toBeCloseTo(1, 6)
    expect(rangeAlong(picture, 2)).toEqual([0, 3])
  })

  it('takes its patches along, corner by corner as the nearest cell; what lies far from any stays', () => {
    const moved = patchMoved(picture, Float32Array.from([1, 1, 0.5, 1, 1, 3.5, 0, 0, 0]))
    expect([...moved].map((one) => one.toFixed(1))).toEqual(['0.0', '0.0', '0.1', '0.3', '0.0', '0.4', '0.0', '0.0', '0.1'])
    expect([...patchMoved(picture, Float32Array.from([40, 0, 0]))]).toEqual([0, 0, 0])
  })

  it('has strokes along which it is pulled or pressed most, on its skin and its cut, where there is something to be told', () => {
    const { pulled, pressed } = strokesOf(picture, 1, 0)
    // Along x, about the middle of the lower facet; along z, about that of the upper.
    expect([...pulled].map((one) => one.toFixed(2))).toEqual(['-0.93', '0.00', '0.33', '2.27', '0.00', '0.33'])
    expect(pressed).toHaveLength(6)
    expect(pressed[5]! - pressed[2]!).toBeCloseTo(3.2, 5)
    // As far as its cell moves; none of what is cut away; none where hardly anything is reached.
    expect(strokesOf(picture, 1, 10).pulled[2]! - pulled[2]!).toBeCloseTo(1, 5)
    expect(strokesOf(picture, 1, 0, { axis: 2, at: 0.9 }).pressed).toHaveLength(0)
    expect(strokesOf(picture, 0.01, 0).pulled).toHaveLength(0)
  })
})
