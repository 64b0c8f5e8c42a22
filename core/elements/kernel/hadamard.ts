/*
 * Eight corners as sums over all of them, with the signs of eight patterns, and back: a Hadamard transform whose far sides are positive. Bit 0 of a
 * corner is set on the far side along x, bit 1 along y, bit 2 along z; a pattern is −1 for each axis that it names and on whose near side a corner lies.
 */

/** From corners to patterns, eight numbers from `at` on. */
export function toPatterns(of: Float64Array, to: Float64Array, at = 0): void {
  const ab = of[at + 1]! + of[at]!
  const ba = of[at + 1]! - of[at]!
  const cd = of[at + 3]! + of[at + 2]!
  const dc = of[at + 3]! - of[at + 2]!
  const ef = of[at + 5]! + of[at + 4]!
  const fe = of[at + 5]! - of[at + 4]!
  const gh = of[at + 7]! + of[at + 6]!
  const hg = of[at + 7]! - of[at + 6]!
  to[at] = gh + ef + (cd + ab)
  to[at + 1] = hg + fe + (dc + ba)
  to[at + 2] = gh - ef + (cd - ab)
  to[at + 3] = hg - fe + (dc - ba)
  to[at + 4] = gh + ef - (cd + ab)
  to[at + 5] = hg + fe - (dc + ba)
  to[at + 6] = gh - ef - (cd - ab)
  to[at + 7] = hg - fe - (dc - ba)
}

/** From patterns to corners: the same signs, transposed. */
export function toCorners(of: Float64Array, to: Float64Array, at = 0): void {
  const ab = of[at]! - of[at + 1]!
  const ba = of[at]! + of[at + 1]!
  const cd = of[at + 2]! - of[at + 3]!
  const dc = of[at + 2]! + of[at + 3]!
  const ef = of[at + 4]! - of[at + 5]!
  const fe = of[at + 4]! + of[at + 5]!
  const gh = of[at + 6]! - of[at + 7]!
  const hg = of[at + 6]! + of[at + 7]!
  to[at] = ab - cd - (ef - gh)
  to[at + 1] = ba - dc - (fe - hg)
  to[at + 2] = ab + cd - (ef + gh)
  to[at + 3] = ba + dc - (fe + hg)
  to[at + 4] = ab - cd + (ef - gh)
  to[at + 5] = ba - dc + (fe - hg)
  to[at + 6] = ab + cd + (ef + gh)
  to[at + 7] = ba + dc + (fe + hg)
}
