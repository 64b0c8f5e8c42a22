import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clipLines } from './clipLines'
import { type Contours, ContoursBuilder } from './contours'
import { NearIndex } from './nearIndex'
import { holds } from './polygonsOf'

const REACH = 1.5

/** Lengths in micrometres, so that all of a range is met alike, mm. */
const steps = (min: number, max: number) => fc.integer({ min: 1000 * min, max: 1000 * max }).map((um) => um / 1000)

/** A star about a middle, with a hole in it where `hole` is above 0: radii at even angles, the hole as a small square. */
const star = fc
  .record({
    radii: fc.array(steps(4, 10), { minLength: 5, maxLength: 24 }),
    hole: steps(0, 2),
  })
  .map(({ radii, hole }) => {
    const rim = radii.flatMap((r, i) => [r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length)])
    return hole > 0.2 ? [rim, [-hole, -hole, -hole, hole, hole, hole, hole, -hole]] : [rim]
  })
const place = fc.tuple(steps(-11, 11), steps(-11, 11))

function contoursOf(rims: readonly (readonly number[])[]): Contours {
  const out = new ContoursBuilder()
  // A first group that nothing is asked of: indices must not begin at 0 by chance.
  out.addPolygon([90, 90, 91, 90, 90, 91])
  out.endGroup()
  for (const rim of rims) out.addPolygon(rim)
  out.endGroup()
  return out.finish()
}

/** Nearest point of any edge, by looking at all of them. */
function distanceByHand(rims: readonly (readonly number[])[], x: number, y: number): number {
  let least = Infinity
  for (const rim of rims) {
    for (let i = 0; i < rim.length; i += 2) {
      const j = (i + 2) % rim.length
      const [ax, ay, ex, ey] = [rim[i]!, rim[i + 1]!, rim[j]! - rim[i]!, rim[j + 1]! - rim[i + 1]!]
      const share = Math.max(0, Math.min(1, ((x - ax) * ex + (y - ay) * ey) / (ex * ex + ey * ey)))
      least = Math.min(least, Math.hypot(x - ax - share * ex, y - ay - share * ey))
    }
  }
  return least
}
const insideByHand = (rims: readonly (readonly number[])[], x: number, y: number): boolean =>
  rims.filter((rim) => holds(rim, x, y)).length % 2 === 1

describe('the nearest rim', () => {
  it('is as far as looking at every edge finds it, negative inside; none is seen beyond the reach', () => {
    let seen = 0
    fc.assert(
      fc.property(star, place, (rims, [x, y]) => {
        const found = new NearIndex(contoursOf(rims), 1, REACH).signedDistance(x, y)
        const distance = distanceByHand(rims, x, y)
        if (Math.abs(distance - REACH) < 1e-9 || distance < 1e-9) return
        if (distance > REACH) expect(found).toBeNaN()
        else {
          seen++
          expect(found).toBeCloseTo(insideByHand(rims, x, y) ? -distance : distance, 9)
        }
      }),
      { numRuns: 600 },
    )
    expect(seen).toBeGreaterThan(100)
  })

  it('is led away from along the shortest way: back along it lies the rim', () => {
    fc.assert(
      fc.property(star, place, (rims, [x, y]) => {
        const near = new NearIndex(contoursOf(rims), 1, REACH).nearest(x, y)
        if (!near || Math.abs(near.distance) < 1e-3) return
        const back = near.distance / Math.hypot(near.awayX, near.awayY)
        expect(distanceByHand(rims, x - near.awayX * back, y - near.awayY * back)).toBeLessThan(1e-9)
      }),
      { numRuns: 600 },
    )
  })

  it('is that of the layer that was entered last', () => {
    const out = new ContoursBuilder()
    for (const side of [10, 20]) {
      out.addPolygon([0, 0, side, 0, side, side, 0, side])
      out.endGroup()
    }
    const index = new NearIndex(out.finish(), 0, REACH)
    expect(index.signedDistance(9, 5)).toBeCloseTo(-1, 12)
    index.enter(1)
    expect(index.signedDistance(9, 5)).toBeNaN()
    expect(index.holds(15, 15)).toBe(true)
  })
})

describe('lines cut to what lies inside', () => {
  const line = fc.array(steps(-12, 12), { minLength: 4, maxLength: 12 }).filter((xy) => xy.length % 2 === 0)
  const lengthOf = (xy: ArrayLike<number>): number => {
    let length = 0
    for (let i = 2; i < xy.length; i += 2) length += Math.hypot(xy[i]! - xy[i - 2]!, xy[i + 1]! - xy[i - 1]!)
    return length
  }

  it('are as long as cutting by every edge in turn finds them', () => {
    fc.assert(
      fc.property(star, place, place, (rims, [ax, ay], [bx, by]) => {
        const shares = [0, 1]
        for (const rim of rims) {
          for (let i = 0; i < rim.length; i += 2) {
            const j = (i + 2) % rim.length
            const [ex, ey] = [rim[j]! - rim[i]!, rim[j + 1]! - rim[i + 1]!]
            const across = (bx - ax) * ey - (by - ay) * ex
            const share = ((rim[i]! - ax) * ey - (rim[i + 1]! - ay) * ex) / across
            const along = ((rim[i]! - ax) * (by - ay) - (rim[i + 1]! - ay) * (bx - ax)) / across
            if (along >= 0 && along < 1 && share > 0 && share < 1) shares.push(share)
          }
        }
        shares.sort((a, b) => a - b)
        let wanted = 0
        for (let i = 1; i < shares.length; i++) {
          const middle = (shares[i - 1]! + shares[i]!) / 2
          const [x, y] = [ax + (bx - ax) * middle, ay + (by - ay) * middle]
          // A stretch that runs on a rim is inside or outside by rounding.
          fc.pre(shares[i]! - shares[i - 1]! < 1e-12 || distanceByHand(rims, x, y) > 1e-9)
          if (insideByHand(rims, x, y)) wanted += shares[i]! - shares[i - 1]!
        }
        const kept = clipLines([[ax, ay, bx, by]], contoursOf(rims), 1).reduce((sum, piece) => sum + lengthOf(piece), 0)
        expect(kept).toBeCloseTo(wanted * Math.hypot(bx - ax, by - ay), 7)
      }),
      { numRuns: 400 },
    )
  })

  it('lie inside in their middles, and end inside the line or on a rim', () => {
    fc.assert(
      fc.property(star, line, (rims, xy) => {
        for (const piece of clipLines([xy], contoursOf(rims), 1)) {
          const x = (piece[0]! + piece[2]!) / 2
          const y = (piece[1]! + piece[3]!) / 2
          if (distanceByHand(rims, x, y) > 1e-6) expect(insideByHand(rims, x, y)).toBe(true)
          for (const end of [0, piece.length - 2]) {
            const isEndOfLine = [0, xy.length - 2].some((i) => piece[end] === xy[i] && piece[end + 1] === xy[i + 1])
            if (!isEndOfLine) expect(distanceByHand(rims, piece[end]!, piece[end + 1]!)).toBeLessThan(1e-9)
          }
        }
      }),
      { numRuns: 300 },
    )
  })
})
