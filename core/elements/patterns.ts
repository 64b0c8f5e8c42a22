/** Corners of a brick: bit 0 is set on the far side along x, bit 1 along y, bit 2 along z. */
export const CORNERS = 8

/** Sign of a pattern at a corner: −1 for each axis that the pattern names and on whose near side the corner lies. */
export function signOf(pattern: number, corner: number): number {
  let value = 1
  for (let axis = 0; axis < 3; axis++) if ((pattern >> axis) & 1) value *= (corner >> axis) & 1 ? 1 : -1
  return value
}

/** Sums of eight corners with the signs of each pattern, three numbers a corner to eight a direction: a Hadamard transform. */
export function toPatterns(of: Float64Array, to: Float64Array): void {
  for (let i = 0; i < 3; i++) {
    const [ab, ba] = [of[3 + i]! + of[i]!, of[3 + i]! - of[i]!]
    const [cd, dc] = [of[9 + i]! + of[6 + i]!, of[9 + i]! - of[6 + i]!]
    const [ef, fe] = [of[15 + i]! + of[12 + i]!, of[15 + i]! - of[12 + i]!]
    const [gh, hg] = [of[21 + i]! + of[18 + i]!, of[21 + i]! - of[18 + i]!]
    const o = CORNERS * i
    to[o] = gh + ef + (cd + ab)
    to[o + 1] = hg + fe + (dc + ba)
    to[o + 2] = gh - ef + (cd - ab)
    to[o + 3] = hg - fe + (dc - ba)
    to[o + 4] = gh + ef - (cd + ab)
    to[o + 5] = hg + fe - (dc + ba)
    to[o + 6] = gh - ef - (cd - ab)
    to[o + 7] = hg - fe - (dc - ba)
  }
}
