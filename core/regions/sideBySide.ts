import type { MiddleLine } from '../geometry/middleLine'

/** A line in a narrow place is at most this many line widths wide. */
export const WIDEST_LINE = 1.5

/** Which widths a line in a narrow place may have, mm. */
export interface LineWidths {
  /** That is asked for. */
  readonly width: number
  /** The thinnest that holds together. */
  readonly least: number
}

/**
 * How many lines lie side by side along the whole of a middle line so that none is too thin or too wide anywhere; of several
 * counts the one whose lines come nearest to the asked width. Nothing where no count does.
 *
 * @param most lines at most
 */
export function countAcross(widths: readonly number[], { width, least }: LineWidths, most: number): number | undefined {
  const [thinnest, widest, sum] = widths.reduce(([low, high, all], w) => [Math.min(low, w), Math.max(high, w), all + w], [Infinity, 0, 0])
  const fewest = Math.max(1, Math.ceil(widest / (WIDEST_LINE * width)))
  const greatest = Math.min(most, Math.floor(thinnest / least))
  if (fewest > greatest) return undefined
  return Math.min(greatest, Math.max(fewest, Math.round(sum / widths.length / width)))
}

/** Lines side by side that fill the place about a middle line together, from its right to its left. */
export const sideBySide = (line: MiddleLine, count: number): MiddleLine[] =>
  Array.from({ length: count }, (_, i) => ({
    xy: count === 1 ? line.xy : shifted(line, (i + 0.5) / count - 0.5),
    width: line.width.map((w) => w / count),
    closed: line.closed,
  }))

/**
 * Cuts a middle line where the count of lines beside each other has to change: one is kept as long as its lines are neither
 * too wide nor, for two, thinner than half a line, so that a place about as wide as the limit does not fall into scraps.
 */
export function stretchesOf(line: MiddleLine, widths: LineWidths): { readonly line: MiddleLine; readonly count: number }[] {
  const all = countAcross(line.width, widths, 2)
  if (all !== undefined) return [{ line, count: all }]
  const { width } = widths
  const fits = (count: number, w: number): boolean => (count === 1 ? w <= WIDEST_LINE * width : w >= width)
  const points = line.width.length
  // A closed line begins where its count changes anyhow: where it is widest.
  const first = line.closed ? line.width.indexOf(Math.max(...line.width)) : 0
  const order = Array.from({ length: points + (line.closed ? 1 : 0) }, (_, i) => (first + i) % points)
  const stretches: { line: MiddleLine; count: number }[] = []
  let from = 0
  let count = fits(2, line.width[order[0]!]!) ? 2 : 1
  for (let i = 1; i <= order.length; i++) {
    const isEnd = i === order.length
    if (!isEnd && fits(count, line.width[order[i]!]!)) continue
    const own = order.slice(from, Math.min(i + 1, order.length))
    if (own.length > 1) stretches.push({ line: pick(line, own), count })
    from = i
    count = 3 - count
  }
  return stretches
}

const pick = ({ xy, width }: MiddleLine, points: readonly number[]): MiddleLine => ({
  xy: points.flatMap((i) => [xy[2 * i]!, xy[2 * i + 1]!]),
  width: points.map((i) => width[i]!),
  closed: false,
})

/** A line moved to its left at every point by a share of the width there. */
function shifted({ xy, width, closed }: MiddleLine, share: number): number[] {
  const count = width.length
  return width.flatMap((w, i) => {
    const before = closed ? (i + count - 1) % count : Math.max(0, i - 1)
    const after = closed ? (i + 1) % count : Math.min(count - 1, i + 1)
    const dx = xy[2 * after]! - xy[2 * before]!
    const dy = xy[2 * after + 1]! - xy[2 * before + 1]!
    const length = Math.hypot(dx, dy) || 1
    return [xy[2 * i]! - (dy / length) * w * share, xy[2 * i + 1]! + (dx / length) * w * share]
  })
}
