import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { weld } from './weld'

/** Few values, so that corners meet often; both zeros among them. */
const coordinate = fc.constantFrom(0, -0, 1, -1, 0.1, 1e-30, 3e7)
const soup = fc.array(fc.array(coordinate, { minLength: 9, maxLength: 9 }), { maxLength: 60 }).map((triangles) => triangles.flat())

describe('welding', () => {
  it.each([
    ['single', (values: readonly number[]) => Float32Array.from(values)],
    ['double', (values: readonly number[]) => Float64Array.from(values)],
  ])('joins the corners that are equal, and no others, in %s precision', (_name, of) => {
    fc.assert(
      fc.property(soup, (values) => {
        const corners = of(values)
        const { positions, triangles } = weld(corners)
        const seen = new Set<string>()
        for (let c = 0; c < corners.length / 3; c++) {
          const own = [...corners.subarray(3 * c, 3 * c + 3)].map((value) => value + 0)
          expect([...positions.subarray(3 * triangles[c]!, 3 * triangles[c]! + 3)]).toEqual(own)
          seen.add(own.join())
        }
        expect(positions.length).toBe(3 * seen.size)
      }),
    )
  })

  it('keeps apart the corners of many loose triangles, more than a closed surface would have', () => {
    const corners = Float32Array.from({ length: 9 * 5000 }, (_, i) => i)
    const { positions, triangles } = weld(corners)
    expect(positions.length).toBe(corners.length)
    expect([...triangles.subarray(-3)]).toEqual([14997, 14998, 14999])
  })
})
