import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cornerSigns, drawnBox, facetsOfPlace, movedBox, type PlaceBox, pointOf, roundedBox, stretchedBox, turnedBox } from './placeBox'

const mm = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true })
const box = fc
  .tuple(mm(-50, 50), mm(-50, 50), mm(1, 60), mm(1, 60), fc.integer({ min: -179, max: 180 }))
  .map(([x, y, w, d, turn]): PlaceBox => ({ minX: x, maxX: x + w, minY: y, maxY: y + d, turn }))
const corner = fc.constantFrom(...cornerSigns)

describe('a box that is drawn', () => {
  it('is the same from whichever corner it is drawn, and is never without width', () => {
    fc.assert(
      fc.property(mm(-50, 50), mm(-50, 50), mm(-50, 50), mm(-50, 50), (ax, ay, bx, by) => {
        const own = drawnBox([ax, ay], [bx, by])
        expect(own).toEqual(drawnBox([bx, by], [ax, ay]))
        expect(own.maxX - own.minX).toBeGreaterThan(0.39)
        expect(own.maxY - own.minY).toBeGreaterThan(0.39)
      }),
    )
  })

  it('keeps the corner across when one is pulled, is where the pointer is, and keeps its turn', () => {
    fc.assert(
      fc.property(box, corner, mm(1, 40), mm(1, 40), (own, signs, dx, dy) => {
        const [u, v] = signs
        // Outwards from the corner that stays, so that it does not turn over.
        const to = pointOf(own, [u * (1 + dx / 10), v * (1 + dy / 10)])
        const pulled = stretchedBox(own, signs, to)
        for (const [now, was] of [
          [pointOf(pulled, [-u, -v]), pointOf(own, [-u, -v])],
          [pointOf(pulled, signs), to],
        ] as const)
          for (const k of [0, 1] as const) expect(now[k]).toBeCloseTo(was[k], 6)
        expect(pulled.turn).toBe(own.turn)
      }),
    )
  })

  it('does not turn over when a corner is pulled past the one across', () => {
    const pulled = stretchedBox({ minX: 0, maxX: 10, minY: 0, maxY: 10 }, [1, 1], [-20, -20])
    expect(pulled).toEqual({ minX: 0, maxX: 0.4, minY: 0, maxY: 0.4 })
  })

  it('looks where it is turned to, by whole degrees, about its middle', () => {
    fc.assert(
      fc.property(box, fc.integer({ min: -179, max: 180 }), (own, degrees) => {
        const [x, y] = [(own.minX + own.maxX) / 2, (own.minY + own.maxY) / 2]
        const angle = ((degrees + 90) * Math.PI) / 180
        const now = turnedBox(own, [x + 30 * Math.cos(angle), y + 30 * Math.sin(angle)])
        // A half turn either way is the same.
        expect(Math.cos((((now.turn ?? 0) - degrees) * Math.PI) / 180)).toBeCloseTo(1, 9)
        expect(Math.abs(now.turn ?? 0)).toBeLessThanOrEqual(180)
        expect(pointOf(now, [0, 0])[0]).toBeCloseTo(x, 9)
      }),
    )
  })

  it('moves as a whole, and is told in tenths', () => {
    expect(movedBox({ minX: 0, maxX: 1, minY: 2, maxY: 3, turn: 7 }, [10, -2])).toEqual({ minX: 10, maxX: 11, minY: 0, maxY: 1, turn: 7 })
    expect(roundedBox({ minX: 0.04, maxX: 1.06, minY: 2, maxY: 3, turn: 0.04 })).toEqual({ minX: 0, maxX: 1.1, minY: 2, maxY: 3 })
  })

  it('is closed where it is drawn in space: its facets hold its own volume', () => {
    const corners = facetsOfPlace({ minX: 0, maxX: 4, minY: 0, maxY: 5, turn: 33 }, 1, 7)
    let six = 0
    for (let i = 0; i < corners.length; i += 9) {
      const [ax, ay, az, bx, by, bz, cx, cy, cz] = corners.subarray(i, i + 9) as unknown as number[] & { length: 9 }
      six += ax! * (by! * cz! - bz! * cy!) - ay! * (bx! * cz! - bz! * cx!) + az! * (bx! * cy! - by! * cx!)
    }
    expect(six / 6).toBeCloseTo(4 * 5 * 6, 3)
  })
})
