import { describe, expect, it } from 'vitest'
import { runToEnd } from '../units/steps'
import { bucklingWork } from './buckling'
import { isotropic } from './elasticity'
import { POINTS, stressTeller } from './stress'
import { cellsOf, endShare, type Loaded, loaded } from './testing/blocks'

type Three = readonly [number, number, number]
const all = [true, true, true] as const
const none = [false, false, false] as const

/** The factor on its load under which a structure buckles. */
function factorOf({ mesh, moved, ready }: Loaded, material: ReturnType<typeof isotropic>): number {
  const tell = stressTeller(mesh, [material])
  const [stress, own] = [new Float64Array(6 * mesh.share.length), new Float64Array(6 * POINTS)]
  for (let c = 0; c < mesh.share.length; c++) {
    tell(moved, c, own)
    for (let k = 0; k < 6 * POINTS; k++) stress[6 * c + (k % 6)]! += own[k]! / POINTS
  }
  return runToEnd(bucklingWork(ready, stress)).factor
}

describe('a column', () => {
  const [length, side, e] = [60, 3, 2000]
  const material = isotropic(e, 0)
  const pressed = (sign: number): Loaded =>
    loaded(
      cellsOf([side, side, length], [1, 1, 1]),
      material,
      ([, , z]) => (z === 0 ? all : none),
      ([x, y, z]): Three => (z === length ? [0, 0, -sign * endShare(x, 1, side) * endShare(y, 1, side)] : [0, 0, 0]),
      1e-6,
    )

  it('held at its foot buckles at π²·E·I/4L² (Euler)', () => {
    const wanted = (Math.PI ** 2 * e * (side ** 4 / 12)) / (4 * length ** 2)
    const found = factorOf(pressed(1), material)
    expect(found / wanted).toBeGreaterThan(0.96)
    expect(found / wanted).toBeLessThan(1.02)
  })

  it('that is pulled does not', () => {
    const found = factorOf(pressed(-1), material)
    // Nothing of it is pressed but by rounding, and by what the foot squeezes.
    expect(found).toBeGreaterThan(50 * factorOf(pressed(1), material))
  })
})

it('the wall of a square box buckles in half waves at 4·π²·E/12(1 − ν²)·(t/b)² (Timoshenko & Gere; from memory)', () => {
  const [outer, thick, high, e, poisson] = [20, 0.8, 40, 2000, 0.3]
  const across = outer / thick
  const material = isotropic(e, poisson)
  const isWall = (x: number, y: number): boolean => Math.min(x, y, outer - x, outer - y) < thick
  const cells = cellsOf([across, across, 40], [thick, thick, high / 40], isWall)
  const area = outer ** 2 - (outer - 2 * thick) ** 2
  const own = loaded(
    cells,
    material,
    ([, , z]) => (z === 0 ? all : z > high - 0.01 ? [true, true, false] : none),
    ([x, y, z]): Three => {
      if (z < high - 0.01) return [0, 0, 0]
      // Each of the cells about a node gives it a quarter of its share of one megapascal.
      const about = [-1, 1].flatMap((i) => [-1, 1].map((j) => [x + (i * thick) / 2, y + (j * thick) / 2] as const))
      const count = about.filter(([p, q]) => p > 0 && q > 0 && p < outer && q < outer && isWall(p, q)).length
      return [0, 0, (-count * thick ** 2) / 4]
    },
    1e-5,
  )
  expect(-own.forces.reduce((sum, one) => sum + one, 0) / area).toBeCloseTo(1, 6)
  const wanted = ((4 * Math.PI ** 2 * e) / (12 * (1 - poisson ** 2))) * (thick / (outer - thick)) ** 2
  const found = factorOf(own, material)
  // Its ends are clamped, and its corners are stiffer than hinges by a little.
  expect(found / wanted).toBeGreaterThan(0.95)
  expect(found / wanted).toBeLessThan(1.2)
})
