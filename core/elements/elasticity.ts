/** A 6 × 6 matrix, row by row: stresses σx, σy, σz, τyz, τxz, τxy (MPa) from strains εx, εy, εz, γyz, γxz, γxy. */
export type Elasticity = Float64Array

/** Moduli along the axes, MPa; one Poisson's ratio for the stiffest pair, the others from symmetry; shear moduli by pair of axes, MPa. */
export interface Orthotropic {
  readonly modulus: readonly [x: number, y: number, z: number]
  readonly poisson: number
  readonly shear: readonly [yz: number, xz: number, xy: number]
}

/** Equal in all directions: shear modulus `E / 2(1 + ν)`. */
export function isotropic(modulus: number, poisson: number): Elasticity {
  const shear = modulus / (2 * (1 + poisson))
  return orthotropic({ modulus: [modulus, modulus, modulus], poisson, shear: [shear, shear, shear] })
}

/**
 * Of a material whose directions are the axes: the inverse of its compliance (Jones, Mechanics of Composite Materials, 2nd ed. 1999, ch. 2; from
 * memory). Poisson's ratio between two axes is the given one, less as the softer of them is: `ν·√(Emin/Emax)` keeps it positive definite.
 *
 * @throws RangeError where a modulus is not positive
 */
export function orthotropic({ modulus, poisson, shear }: Orthotropic): Elasticity {
  if (![...modulus, ...shear].every((one) => one > 0)) throw new RangeError('a modulus is not positive')
  const [ex, ey, ez] = modulus
  // −ν_ij/E_i = −ν_ji/E_j, with the geometric mean of both moduli under ν.
  const off = (a: number, b: number): number => -poisson / Math.sqrt(a * b)
  const [xy, xz, yz] = [off(ex, ey), off(ex, ez), off(ey, ez)]
  const s = [1 / ex, xy, xz, xy, 1 / ey, yz, xz, yz, 1 / ez]
  const c = inverse3(s)
  const all = new Float64Array(36)
  for (let i = 0; i < 3; i++) {
    for (let j = 0; j < 3; j++) all[6 * i + j] = c[3 * i + j]!
    all[7 * (i + 3)] = shear[i]!
  }
  return all
}

/** @throws RangeError where there is none */
export function inverse3(m: ArrayLike<number>): number[] {
  const [a, b, c, d, e, f, g, h, i] = Array.from(m) as [number, number, number, number, number, number, number, number, number]
  const [A, B, C] = [e * i - f * h, f * g - d * i, d * h - e * g]
  const determinant = a * A + b * B + c * C
  if (!(Math.abs(determinant) > 0)) throw new RangeError('a matrix has no inverse')
  return [A, c * h - b * i, b * f - c * e, B, a * i - c * g, c * d - a * f, C, b * g - a * h, a * e - b * d].map((one) => one / determinant)
}
