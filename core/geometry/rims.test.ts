import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { testKernel } from '../testing/kernel'
import { ContoursBuilder, groupArea } from './contours'
import { RimCheck } from './rimCheck'
import { Rims, thin } from './rims'
import { RimShifter } from './shiftRims'

const contoursOf = (rims: readonly (readonly number[])[]) => {
  const out = new ContoursBuilder()
  for (const xy of rims) out.addPolygon(xy)
  out.endGroup()
  return out.finish()
}
const rimsOf = (...rims: number[][]): Rims => new Rims().read(contoursOf(rims), 0)
const square = (x: number, y: number, side: number): number[] => [x, y, x + side, y, x + side, y + side, x, y + side]
const backwards = (xy: number[]): number[] => xy.map((_, i) => xy[xy.length - 2 - 2 * Math.floor(i / 2) + (i % 2)]!)
const pointsOf = ({ xy, points }: Rims): number[] => [...xy.subarray(0, 2 * points)]

/** A rim that waves about a circle: radii at even angles. */
const wavy = fc
  .array(fc.double({ min: 3, max: 12, noNaN: true }), { minLength: 8, maxLength: 40 })
  .map((radii) => radii.flatMap((r, i) => [r * Math.cos((2 * Math.PI * i) / radii.length), r * Math.sin((2 * Math.PI * i) / radii.length)]))

const shift = (rims: Rims, by: number): Rims | undefined => {
  const shifted = new Rims()
  return new RimShifter().shift(rims, by, shifted) && new RimCheck().boundSolid(shifted) ? shifted : undefined
}

describe('moving rims sideways', () => {
  it('leaves a smaller square with sharp corners', () => {
    expect(pointsOf(shift(rimsOf(square(0, 0, 10)), 1)!)).toEqual([1, 1, 9, 1, 9, 9, 1, 9])
  })

  it('grows a hole by as much', () => {
    const shifted = shift(rimsOf(square(0, 0, 20), backwards(square(5, 5, 4))), 1)!
    const areas = contoursOf([[...shifted.xy.subarray(0, 8)], [...shifted.xy.subarray(8, 16)]])
    expect(groupArea(areas, 0)).toBeCloseTo(18 * 18 - 6 * 6, 9)
  })

  it('drops edges that the move uses up', () => {
    // A chamfer of 0.1 mm is gone a millimetre further in.
    expect(pointsOf(shift(rimsOf([0, 0, 9.9, 0, 10, 0.1, 10, 10, 0, 10]), 1)!)).toHaveLength(8)
  })

  it('gives up where a place is narrower than two moves', () => {
    expect(shift(rimsOf(square(0, 0, 1.9)), 1)).toBeUndefined()
    expect(shift(rimsOf([0, 0, 10, 0, 10, 10, 6, 10, 6, 1.5, 4, 1.5, 4, 10, 0, 10]), 1)).toBeUndefined()
    expect(shift(rimsOf(square(0, 0, 20), backwards(square(1, 1, 18))), 0.6)).toBeUndefined()
  })

  it('agrees with the kernel wherever it does not give up', async () => {
    const kernel = await testKernel
    let found = 0
    fc.assert(
      fc.property(wavy, fc.double({ min: 0.05, max: 1, noNaN: true }), (rim, by) => {
        const shifted = shift(rimsOf(rim), by)
        if (!shifted) return
        found++
        const apart = kernel.run((ops) => {
          const expected = ops.offset(ops.read(contoursOf([rim]), 0), -by)
          const own = ops.of(shifted)
          return ops.area(ops.subtract(expected, own)) + ops.area(ops.subtract(own, expected))
        })
        // Where several edges are used up at once they may end in another order: a few thousandths of the rim's band.
        expect(apart).toBeLessThan(0.01 * by * new Rims().read(contoursOf([rim]), 0).length)
      }),
      { numRuns: 300 },
    )
    expect(found).toBeGreaterThan(100)
  })
})

describe('telling whether rims bound a solid', () => {
  const check = new RimCheck()
  it('takes a body with a hole and another body in it', () => {
    expect(check.boundSolid(rimsOf(square(0, 0, 20), backwards(square(2, 2, 16)), square(5, 5, 3)))).toBe(true)
  })

  it('refuses rims that cross, run the wrong way round or lie in each other', () => {
    expect(check.boundSolid(rimsOf(square(0, 0, 10), square(5, 5, 10)))).toBe(false)
    expect(check.boundSolid(rimsOf([0, 0, 10, 10, 10, 0, 0, 10]))).toBe(false)
    expect(check.boundSolid(rimsOf(backwards(square(0, 0, 10))))).toBe(false)
    expect(check.boundSolid(rimsOf(square(0, 0, 10), square(2, 2, 3)))).toBe(false)
  })
})

describe('thinning rims', () => {
  it('keeps every point that is left out within the tolerance of what is kept', () => {
    fc.assert(
      fc.property(wavy, fc.double({ min: 0.01, max: 0.5, noNaN: true }), (rim, tolerance) => {
        const thinned = thin(rimsOf(rim), tolerance, new Rims())
        const kept = pointsOf(thinned)
        fc.pre(kept.length > 0)
        for (let i = 0; i < rim.length; i += 2) {
          let nearest = Infinity
          for (let k = 0; k < kept.length; k += 2) nearest = Math.min(nearest, distance(rim, i, kept, k))
          expect(nearest).toBeLessThanOrEqual(tolerance + 1e-9)
        }
      }),
    )
  })

  it('leaves out what lies on a straight line', () => {
    expect(pointsOf(thin(rimsOf([0, 0, 4, 0, 5, 0, 10, 0, 10, 10, 5, 10.001, 0, 10]), 0.01, new Rims()))).toEqual(square(0, 0, 10))
  })
})

/** From point i of one rim to the edge that begins at point k of the other, mm. */
function distance(rim: readonly number[], i: number, kept: readonly number[], k: number): number {
  const [ax, ay] = [kept[k]!, kept[k + 1]!]
  const [bx, by] = [kept[(k + 2) % kept.length]!, kept[(k + 3) % kept.length]!]
  const [px, py] = [rim[i]! - ax, rim[i + 1]! - ay]
  const [ex, ey] = [bx - ax, by - ay]
  const share = Math.max(0, Math.min(1, (px * ex + py * ey) / (ex * ex + ey * ey || 1)))
  return Math.hypot(px - share * ex, py - share * ey)
}
