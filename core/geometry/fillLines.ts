import type { Contours } from './contours'

/**
 * Parallel lines across a region, in its own frame: line i lies on row `row[i]` and runs from `start[i]` to `end[i]`
 * along the fill direction. Rows ascend; lines of one row ascend along it.
 */
export interface FillLines {
  readonly count: number
  readonly row: Int32Array
  readonly start: Float64Array
  readonly end: Float64Array
  readonly spacing: number
  /** Row r lies at (r + ½) · spacing + offset, across the direction of the lines. */
  readonly offset: number
  /** Direction of the lines. */
  readonly cos: number
  readonly sin: number
}

/**
 * Cuts a group of contours into parallel lines `spacing` mm apart at `angle` radians. Rows are fixed to the bed and not to
 * the region, so lines of like layers stand above each other. Summed length × spacing is the region's area, by the
 * midpoint rule.
 *
 * @param least shorter lines, mm, are left out
 * @param offset moves all rows across their direction, mm
 */
export function fillLines(
  { xy, polygonStart, groupStart }: Contours,
  group: number,
  spacing: number,
  angle: number,
  least: number,
  offset = 0,
): FillLines {
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const firstPoint = polygonStart[groupStart[group]!]!
  const endPoint = polygonStart[groupStart[group + 1]!]!
  let lowest = Infinity
  let highest = -Infinity
  for (let i = firstPoint; i < endPoint; i++) {
    const v = xy[2 * i + 1]! * cos - xy[2 * i]! * sin - offset
    if (v < lowest) lowest = v
    if (v > highest) highest = v
  }
  const firstRow = Math.ceil(lowest / spacing - 0.5)
  const rows = Math.floor(highest / spacing - 0.5) - firstRow + 1
  if (!(rows > 0))
    return { count: 0, row: new Int32Array(0), start: new Float64Array(0), end: new Float64Array(0), spacing, offset, cos, sin }

  const crossingStart = new Uint32Array(rows + 1)
  const eachCrossing = (visit: (row: number, u: number) => void): void => {
    for (let p = groupStart[group]!; p < groupStart[group + 1]!; p++) {
      const to = polygonStart[p + 1]!
      let before = to - 1
      for (let i = polygonStart[p]!; i < to; before = i++) {
        const v0 = xy[2 * before + 1]! * cos - xy[2 * before]! * sin - offset
        const v1 = xy[2 * i + 1]! * cos - xy[2 * i]! * sin - offset
        // Half-open in v, so a corner on a row is met by exactly one of its two edges.
        const from = Math.ceil(Math.min(v0, v1) / spacing - 0.5)
        const end = Math.ceil(Math.max(v0, v1) / spacing - 0.5)
        if (from >= end) continue
        const u0 = xy[2 * before]! * cos + xy[2 * before + 1]! * sin
        const u1 = xy[2 * i]! * cos + xy[2 * i + 1]! * sin
        const slope = (u1 - u0) / (v1 - v0)
        for (let r = from; r < end; r++) visit(r - firstRow, u0 + ((r + 0.5) * spacing - v0) * slope)
      }
    }
  }
  eachCrossing((row) => crossingStart[row + 1]!++)
  for (let r = 0; r < rows; r++) crossingStart[r + 1]! += crossingStart[r]!
  const crossings = new Float64Array(crossingStart[rows]!)
  const cursor = crossingStart.slice()
  eachCrossing((row, u) => {
    crossings[cursor[row]!++] = u
  })

  const most = crossings.length >> 1
  const row = new Int32Array(most)
  const start = new Float64Array(most)
  const end = new Float64Array(most)
  let count = 0
  for (let r = 0; r < rows; r++) {
    sortRange(crossings, crossingStart[r]!, crossingStart[r + 1]!)
    for (let i = crossingStart[r]!; i + 1 < crossingStart[r + 1]!; i += 2) {
      if (crossings[i + 1]! - crossings[i]! < least) continue
      row[count] = r + firstRow
      start[count] = crossings[i]!
      end[count] = crossings[i + 1]!
      count++
    }
  }
  return { count, row, start, end, spacing, offset, cos, sin }
}

/** Insertion sort: a row holds a handful of crossings. */
function sortRange(values: Float64Array, from: number, to: number): void {
  for (let i = from + 1; i < to; i++) {
    const value = values[i]!
    let j = i - 1
    while (j >= from && values[j]! > value) {
      values[j + 1] = values[j]!
      j--
    }
    values[j + 1] = value
  }
}

/** Where a line lies across its direction, mm. */
export const acrossOf = ({ row, spacing, offset }: FillLines, line: number): number => (row[line]! + 0.5) * spacing + offset
