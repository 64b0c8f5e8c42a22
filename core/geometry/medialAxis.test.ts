import { describe, expect, it } from 'vitest'
import { middleLines } from './medialAxis'
import { type MiddleLine, withoutNeedless } from './middleLine'

const lengthOf = ({ xy, closed }: MiddleLine): number => {
  let length = 0
  for (let i = 2; i < xy.length; i += 2) length += Math.hypot(xy[i]! - xy[i - 2]!, xy[i + 1]! - xy[i - 1]!)
  if (closed) length += Math.hypot(xy[0]! - xy.at(-2)!, xy[1]! - xy.at(-1)!)
  return length
}
/** Area of a line of varying width: mean of both ends times the way between them. */
function areaOf({ xy, width, closed }: MiddleLine): number {
  let area = 0
  const count = width.length
  for (let i = 0; i < (closed ? count : count - 1); i++) {
    const j = (i + 1) % count
    area += ((width[i]! + width[j]!) / 2) * Math.hypot(xy[2 * j]! - xy[2 * i]!, xy[2 * j + 1]! - xy[2 * i + 1]!)
  }
  return area
}
const circle = (radius: number, turn: 1 | -1, points = 240): number[] =>
  Array.from({ length: points }, (_, i) => (turn * 2 * Math.PI * i) / points).flatMap((a) => [radius * Math.cos(a), radius * Math.sin(a)])

describe('the middle of narrow places', () => {
  it('of a strip is its centre line, as wide as the strip, from end to end', () => {
    const [line, ...others] = middleLines([[0, 0, 20, 0, 20, 0.5, 0, 0.5]], 0.2, 0.6)
    expect(others).toEqual([])
    for (let i = 1; i < line!.xy.length; i += 2) expect(line!.xy[i]).toBeCloseTo(0.25, 2)
    for (const width of line!.width) expect(width).toBeCloseTo(0.5, 2)
    expect(lengthOf(line!)).toBeGreaterThan(19)
    expect(lengthOf(line!)).toBeLessThan(20.05)
  })

  it('of a wedge widens as the wedge does, and is left out where it is too narrow', () => {
    // From nothing to 0.6 mm over 30 mm: half of it lies under 0.3 mm.
    const lines = middleLines([[0, 0, 30, -0.3, 30, 0.3]], 0.3, 0.6)
    const xs = lines.flatMap(({ xy }) => xy.filter((_, i) => i % 2 === 0))
    expect(Math.min(...xs)).toBeGreaterThan(13.5)
    for (const { xy, width } of lines)
      for (const [i, w] of width.entries()) if (xy[2 * i]! < 28) expect(Math.abs(w - (0.6 * xy[2 * i]!) / 30)).toBeLessThan(0.05)
  })

  it('of a ring is one closed line half-way between its rims, of the ring’s own area', () => {
    const [outer, inner] = [10, 9.5]
    const lines = middleLines([circle(outer, 1), circle(inner, -1)], 0.2, 0.6)
    expect(lines).toHaveLength(1)
    expect(lines[0]!.closed).toBe(true)
    expect(lengthOf(lines[0]!)).toBeCloseTo(2 * Math.PI * 9.75, 0)
    expect(areaOf(lines[0]!) / (Math.PI * (outer ** 2 - inner ** 2))).toBeCloseTo(1, 1)
  })

  it('of a cross has four arms that meet, and no spur into a corner', () => {
    const w = 0.25
    const cross = [-5, -w, -w, -w, -w, -5, w, -5, w, -w, 5, -w, 5, w, w, w, w, 5, -w, 5, -w, w, -5, w]
    const lines = middleLines([cross], 0.2, 0.6)
    expect(lines.reduce((sum, line) => sum + lengthOf(line), 0)).toBeGreaterThan(18.5)
    expect(lines.reduce((sum, line) => sum + lengthOf(line), 0)).toBeLessThan(20.5)
    for (const line of lines) {
      expect(lengthOf(line)).toBeGreaterThan(0)
      // An arm lies on an axis of the cross to its very end; in the middle lines are rounded off.
      for (let i = 0; i < line.xy.length; i += 2)
        if (Math.hypot(line.xy[i]!, line.xy[i + 1]!) > 0.6)
          expect(Math.min(Math.abs(line.xy[i]!), Math.abs(line.xy[i + 1]!))).toBeLessThan(0.06)
    }
  })

  it('is none where every place is too narrow or nothing is there', () => {
    expect(middleLines([[0, 0, 20, 0, 20, 0.1, 0, 0.1]], 0.2, 0.6)).toEqual([])
    expect(middleLines([], 0.2, 0.6)).toEqual([])
  })
})

describe('needless points', () => {
  it('on a straight of even width go, those at a bend or a change of width stay', () => {
    const straight = withoutNeedless([0, 0, 1, 0.001, 2, 0, 3, 0], [0.4, 0.4, 0.4, 0.4], false)
    expect(straight).toEqual({ xy: [0, 0, 3, 0], width: [0.4, 0.4] })
    const bent = withoutNeedless([0, 0, 1, 0, 1, 1], [0.4, 0.4, 0.4], false)
    expect(bent.width).toHaveLength(3)
    const swollen = withoutNeedless([0, 0, 1, 0, 2, 0], [0.3, 0.5, 0.3], false)
    expect(swollen.width.map((w) => Number(w.toFixed(2)))).toEqual([0.3, 0.5, 0.3])
  })
})
