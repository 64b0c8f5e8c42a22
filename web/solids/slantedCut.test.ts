import { code, type Feature } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { describe, expect, it } from 'vitest'
import type { Pieces } from './pieceList'
import { piecesOfCut } from './pieces'
import { piecesAcross } from './slantedCut'

const [WIDTH, HEIGHT] = [0.4, 0.2]

/** Separate lines, each laid from the first to the second point on top of its layer. */
function linesAt(lines: readonly (readonly [from: [number, number], to: [number, number], top: number, feature?: Feature])[]): DrawnMoves {
  // A travel leads from line to line.
  const moves = lines.flatMap(([from, to, top, feature = 'infill']) => [
    { to: from, top, feature: 'travel' as Feature },
    { to, top, feature },
  ])
  return {
    x: Float32Array.of(0, ...moves.map(({ to }) => to[0])),
    y: Float32Array.of(0, ...moves.map(({ to }) => to[1])),
    z: Float32Array.of(0, ...moves.map(({ top }) => top)).map((_, i, all) => (i < moves.length ? moves[i]!.top : all[i]!)),
    feature: Uint8Array.from(moves, ({ feature }) => code[feature]),
    width: Float32Array.from(moves, ({ feature }) => (feature === 'travel' ? 0 : WIDTH)),
    area: Float32Array.from(moves, ({ feature }) => (feature === 'travel' ? 0 : WIDTH * HEIGHT)),
  } as unknown as DrawnMoves
}
const lengthOf = ({ ends }: Pieces, i: number): number => Math.hypot(ends[4 * i + 2]! - ends[4 * i]!, ends[4 * i + 3]! - ends[4 * i + 1]!)
const areaOf = (pieces: Pieces): number => pieces.width.reduce((sum, width, i) => sum + width * lengthOf(pieces, i), 0)

describe('a slanted cut', () => {
  it('of a line that runs through the plane is its cross-section over the cosine', () => {
    const cut = piecesAcross(linesAt([[[-5, 0], [5, 0], 0.1]]), { azimuthDeg: 0, elevationDeg: 45 }, 0)
    expect(areaOf(cut)).toBeCloseTo((WIDTH * HEIGHT) / Math.cos(Math.PI / 4), 6)
    // Seen along the direction it is as wide as the line, and as high as the slant makes it.
    expect([cut.width[0], lengthOf(cut, 0)].map((mm) => Number(mm!.toFixed(4))).sort()).toEqual([0.2828, 0.4])
  })

  it('of a line that lies in the plane is as long as the line', () => {
    const cut = piecesAcross(linesAt([[[0, -5], [0, 5], 0.1]]), { azimuthDeg: 0, elevationDeg: 45 }, 0)
    expect(lengthOf(cut, 0)).toBeCloseTo(10, 5)
    // Across the line the plane meets a rectangle of 0.4 × 0.2 mm at 45° through its middle.
    expect(cut.width[0]).toBeCloseTo(HEIGHT / Math.sin(Math.PI / 4), 5)
    expect([...cut.ends].map((mm) => Number(Math.abs(mm).toFixed(3)))).toEqual([5, 0, 5, 0])
  })

  it('of many lines side by side and one over another has the area of the block that they fill', () => {
    const block = linesAt(
      Array.from({ length: 20 }, (_, layer) => layer).flatMap((layer) =>
        Array.from({ length: 10 }, (_, i): readonly [[number, number], [number, number], number] => [
          [-2, -1.8 + i * WIDTH],
          [2, -1.8 + i * WIDTH],
          (layer + 1) * HEIGHT,
        ]),
      ),
    )
    // A cube of 4 mm cut through its middle across (1, 1, 1): a regular hexagon of 3·√3/4·a² (solid geometry).
    const elevationDeg = (Math.atan(1 / Math.SQRT2) * 180) / Math.PI
    const cut = piecesAcross(block, { azimuthDeg: 45, elevationDeg }, 2 / Math.sqrt(3))
    expect(areaOf(cut) / (((3 * Math.sqrt(3)) / 4) * 16)).toBeCloseTo(1, 2)
  })

  it('level along an axis is the upright cut', () => {
    const lines = linesAt([
      [[-5, 0], [5, 1], 0.2],
      [[-5, 2], [5, 2], 0.4],
    ])
    const [slanted, upright] = [piecesAcross(lines, { azimuthDeg: 0, elevationDeg: 0 }, 1), piecesOfCut(lines, 'x', 1)]
    expect([...slanted.move]).toEqual([...upright.move])
    expect(areaOf(slanted)).toBeCloseTo(areaOf(upright), 4)
  })

  it('leaves out what it does not meet, and travels', () => {
    expect(piecesAcross(linesAt([[[-5, 0], [5, 0], 0.1]]), { azimuthDeg: 0, elevationDeg: 45 }, 9).move).toHaveLength(0)
  })
})
