/** Corners of a brick: bit 0 is set on the far side along x, bit 1 along y, bit 2 along z. */
export const CORNERS = 8

/** Sign of a pattern at a corner: −1 for each axis that the pattern names and on whose near side the corner lies. */
export function signOf(pattern: number, corner: number): number {
  let value = 1
  for (let axis = 0; axis < 3; axis++) if ((pattern >> axis) & 1) value *= (corner >> axis) & 1 ? 1 : -1
  return value
}
