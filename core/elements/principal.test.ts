import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import { principal } from './principal'

describe('the largest principal stress', () => {
  it('of a pull, a press and a shear is what any handbook says', () => {
    expect(principal([5, 0, 0, 0, 0, 0])).toMatchObject({ way: [1, 0, 0], isPressed: false, stress: 5 })
    expect(principal([1, 2, -7, 0, 0, 0])).toMatchObject({ isPressed: true, stress: -7 })
    // Pure shear pulls at 45°, as much as it presses across that.
    const sheared = principal([0, 0, 0, 0, 0, 3])
    expect(Math.abs(sheared.stress)).toBeCloseTo(3, 9)
    expect(Math.abs(sheared.way[0])).toBeCloseTo(Math.SQRT1_2, 9)
  })

  it('is an eigenvalue with its vector, and none is larger: 200 random stresses', () => {
    const random = seeded(11)
    for (let i = 0; i < 200; i++) {
      const [x, y, z, yz, xz, xy] = Array.from({ length: 6 }, () => 20 * random() - 10) as [number, number, number, number, number, number]
      const { way, stress } = principal([x, y, z, yz, xz, xy])
      const times = (v: readonly [number, number, number]): [number, number, number] => [
        x * v[0] + xy * v[1] + xz * v[2],
        xy * v[0] + y * v[1] + yz * v[2],
        xz * v[0] + yz * v[1] + z * v[2],
      ]
      const own = times(way)
      for (let k = 0; k < 3; k++) expect(own[k]).toBeCloseTo(stress * way[k]!, 8)
      expect(Math.hypot(...way)).toBeCloseTo(1, 9)
      for (let k = 0; k < 20; k++) {
        const other = [random() - 0.5, random() - 0.5, random() - 0.5] as [number, number, number]
        const length = Math.hypot(...other)
        const along = times(other).reduce((sum, one, j) => sum + one * other[j]!, 0) / length ** 2
        expect(Math.abs(along)).toBeLessThanOrEqual(Math.abs(stress) + 1e-9)
      }
    }
  })
})
