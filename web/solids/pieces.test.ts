import { code } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { describe, expect, it } from 'vitest'
import { doneAt, pieceAt, piecesOfCut, piecesOfLayer, piecesOfPart } from './pieces'

/** A square of outer wall, 10 mm wide, a travel to its middle and a line of infill, in each of two layers. */
function drawn(): DrawnMoves {
  const one = [
    [10, 0, code.outerWall],
    [10, 10, code.outerWall],
    [0, 10, code.outerWall],
    [0, 0, code.outerWall],
    [5, 0, code.travel],
    [5, 10, code.infill],
  ] as const
  const points = [...one, ...one]
  const n = points.length
  const seconds = points.map((_, i) => 1 + (i % 6))
  return {
    x: Float32Array.of(0, ...points.map(([x]) => x)),
    y: Float32Array.of(0, ...points.map(([, y]) => y)),
    z: Float32Array.from({ length: n + 1 }, (_, i) => (i <= 6 ? 0.2 : 0.4)),
    feature: Uint8Array.from(points, ([, , feature]) => feature),
    limiter: new Uint8Array(n),
    air: new Uint8Array(n),
    width: Float32Array.from(points, ([, , feature]) => (feature === code.travel ? 0 : 0.4)),
    area: Float32Array.from(points, ([, , feature]) => (feature === code.travel ? 0 : 0.08)),
    asked: new Float32Array(n).fill(60),
    peak: new Float32Array(n).fill(50),
    meltLoad: new Float32Array(n),
    gloss: new Float32Array(n),
    start: Float32Array.from(seconds, (_, i) => [0, 1, 3, 6, 10, 15][i % 6]!),
    duration: Float32Array.from(seconds),
    layerStart: Uint32Array.of(0, 6, 12),
    layerTime: Float64Array.of(21, 21),
    layerTop: Float64Array.of(0.2, 0.4),
  }
}

describe('pieces of a layer', () => {
  it('are its lines in their order; travels only where they are asked for', () => {
    expect([...piecesOfLayer(drawn(), 1, false).move]).toEqual([6, 7, 8, 9, 11])
    expect([...piecesOfLayer(drawn(), 0, true).move]).toEqual([0, 1, 2, 3, 4, 5])
    expect([...piecesOfLayer(drawn(), 0, false).ends.slice(4, 8)]).toEqual([10, 0, 10, 10])
    expect(piecesOfLayer(drawn(), 7, true).move.length).toBe(0)
  })

  it('are done as time goes on, the one in hand by its share, whether travels are drawn or not', () => {
    const moves = drawn()
    const lines = piecesOfLayer(moves, 1, false)
    expect(doneAt(lines, moves, 0)).toBe(0)
    expect(doneAt(lines, moves, 2)).toBeCloseTo(1.5)
    // In the middle of the travel all walls are done, and the infill is not begun.
    expect(doneAt(lines, moves, 12)).toBe(4)
    expect(doneAt(piecesOfLayer(moves, 1, true), moves, 12.5)).toBeCloseTo(4.5)
    expect(doneAt(lines, moves, 21)).toBe(5)
  })

  it('are found by a point on them or near them, the upper one where two cross', () => {
    const lines = piecesOfLayer(drawn(), 0, false)
    expect(pieceAt(lines, 9.9, 5, 0.1)).toBe(1)
    expect(pieceAt(lines, 3, 5, 0.1)).toBeUndefined()
    expect(pieceAt(lines, 5, 10, 0.1)).toBe(4)
  })
})

it('pieces of the part are without its foot', () => {
  const moves = drawn()
  moves.feature[0] = code.foot
  moves.feature[1] = code.support
  const own = piecesOfPart(piecesOfLayer(moves, 0, false), moves)
  expect([...own.move]).toEqual([2, 3, 5])
  expect([...own.ends.slice(0, 4)]).toEqual([10, 10, 0, 10])
})

describe('pieces of an upright cut', () => {
  it('are the lines’ own widths and heights where it crosses them', () => {
    const cut = piecesOfCut(drawn(), 'y', 5)
    expect([...cut.move].filter((m) => m < 6)).toEqual([1, 3, 5])
    const spans = Array.from({ length: 3 }, (_, i) => [...cut.ends.slice(4 * i, 4 * i + 4)].map((mm) => Number(mm.toFixed(3))))
    expect(spans).toEqual([
      [9.8, 0.1, 10.2, 0.1],
      [-0.2, 0.1, 0.2, 0.1],
      [4.8, 0.1, 5.2, 0.1],
    ])
    expect([...cut.width].every((height) => Math.abs(height - 0.2) < 1e-6)).toBe(true)
  })

  it('show a line that lies along the plane in its whole length', () => {
    const cut = piecesOfCut(drawn(), 'y', 10)
    const wall = [...cut.move].indexOf(2)
    expect([...cut.ends.slice(4 * wall, 4 * wall + 4)].map((mm) => Number(mm.toFixed(3)))).toEqual([0, 0.1, 10, 0.1])
  })
})
