/** Inverse of a symmetric 3 × 3 that stands at a place of an array, row by row. */
export function symmetricInverse(m: ArrayLike<number>, at = 0): [number, number, number, number, number, number, number, number, number] {
  const [a, b, c, d, e, f] = [m[at]!, m[at + 1]!, m[at + 2]!, m[at + 4]!, m[at + 5]!, m[at + 8]!]
  const [A, B, C] = [d * f - e * e, c * e - b * f, b * e - c * d]
  const over = 1 / (a * A + b * B + c * C)
  const [D, E, F] = [a * f - c * c, b * c - a * e, a * d - b * b]
  return [A * over, B * over, C * over, B * over, D * over, E * over, C * over, E * over, F * over]
}
