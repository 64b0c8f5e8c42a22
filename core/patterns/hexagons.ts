const HALF_ROOT_3 = Math.sqrt(3) / 2

/** Side of hexagons of lines `width` wide that fill `density` (0–1), mm: from 4·w/(3·(√3/2·s + w)) = density. */
export const hexagonSide = (width: number, density: number): number =>
  Math.max(0.1 * width, ((4 * width) / (3 * density) - width) / HALF_ROOT_3)

/**
 * Zigzag lines that together make hexagons, over a box, in mm. A line goes up, flat, down, flat, each for one side;
 * neighbours are mirrored, and where their flats meet they lie beside each other.
 */
export function hexagonLines(side: number, width: number, box: readonly [number, number, number, number]): Float64Array[] {
  const [minX, maxX, minY, maxY] = box
  const rise = HALF_ROOT_3 * side
  const pitch = rise + width
  const lines: Float64Array[] = []
  const firstColumn = Math.floor(minX / (3 * side)) - 1
  const lastColumn = Math.ceil(maxX / (3 * side)) + 1
  for (let row = Math.floor(minY / pitch) - 1; row <= Math.ceil(maxY / pitch) + 1; row++) {
    const low = row * pitch
    const mirrored = row % 2 !== 0
    const xy: number[] = []
    for (let column = firstColumn; column <= lastColumn; column++) {
      const x = column * 3 * side
      for (const [dx, up] of [
        [0, 0],
        [0.5, 1],
        [1.5, 1],
        [2, 0],
      ] as const)
        xy.push(x + dx * side, low + ((up === 1) !== mirrored ? rise : 0))
    }
    lines.push(Float64Array.from(xy))
  }
  return lines
}
