import type { FoundVariant } from '@sable/contract/search'
import { type FigureId, figureIds } from '@sable/core/figures/table/figure'
import { type AllFigures, type FigureLimit, meets, type Objective, withAll } from '@sable/core/search/figures'

/** A variant that can be printed. */
export interface Point {
  readonly variant: FoundVariant
  readonly figures: AllFigures
}

export const pointsOf = (variants: readonly FoundVariant[]): Point[] =>
  variants.flatMap((variant) => (variant.figures ? [{ variant, figures: withAll(variant.figures) }] : []))

/** What strength is told by: of all by sections, or of those alone whose load is solved. */
export type Model = 'solved' | 'sections'

/** Variants that were solved, with what they bear by that. */
export const solvedPointsOf = (points: readonly Point[]): Point[] =>
  points.flatMap((point) => {
    const { solvedN } = point.variant.figures ?? {}
    return typeof solvedN === 'number' ? [{ ...point, figures: { ...point.figures, strength: solvedN } }] : []
  })

/** Whether a point has a place by these figures: one that was found before a figure was thought of lacks it. */
export const isKnown =
  (...by: readonly FigureId[]) =>
  ({ figures }: Point): boolean =>
    by.every((figure) => Number.isFinite(figures[figure]))

/** From the least to the greatest with a little room, also where all are the same. */
export function extentOf(values: readonly number[]): readonly [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity]
  for (const value of values) {
    if (value < low) low = value
    if (value > high) high = value
  }
  if (low > high) return [0, 1]
  const room = high > low ? 0.05 * (high - low) : Math.max(1e-6, 0.05 * Math.abs(high))
  return [Math.max(low >= 0 ? 0 : -Infinity, low - room), high + room]
}

type Axis = Pick<Objective, 'figure' | 'better'>

/** Points that no other one beats in both figures, along the first of them. */
export function frontAlong(points: readonly Point[], x: Axis, y: Axis): Point[] {
  const cost = ({ figure, better }: Axis, { figures }: Point): number => (better === 'less' ? figures[figure] : -figures[figure])
  const sorted = points.filter(isKnown(x.figure, y.figure)).sort((a, b) => cost(x, a) - cost(x, b) || cost(y, a) - cost(y, b))
  const front: Point[] = []
  let best = Infinity
  for (const point of sorted) {
    if (cost(y, point) >= best) continue
    best = cost(y, point)
    front.push(point)
  }
  return front
}

/** Corners of what a front beats, within the plot: a staircase from the front towards where both figures are worse. */
export function beatenBy(
  front: readonly Point[],
  x: Axis,
  y: Axis,
  [lowX, highX]: readonly [number, number],
  [lowY, highY]: readonly [number, number],
): [number, number][] {
  if (front.length === 0) return []
  const worstX = x.better === 'less' ? highX : lowX
  const worstY = y.better === 'less' ? highY : lowY
  const corners: [number, number][] = [[front[0]!.figures[x.figure], worstY]]
  for (const [i, { figures }] of front.entries()) {
    corners.push([figures[x.figure], figures[y.figure]])
    const next = front[i + 1]
    corners.push([next ? next.figures[x.figure] : worstX, figures[y.figure]])
  }
  corners.push([worstX, worstY])
  return corners
}

/** Points with a name of their own among those that meet all limits. */
export interface Named {
  readonly id: 'fastest' | 'smoothest' | 'strongest'
  readonly label: string
  readonly point: Point
}

export function namedOf(points: readonly Point[], limits: readonly FigureLimit[]): Named[] {
  const good = points.filter(({ figures }) => meets(figures, limits))
  // Of those that are equally good, the fastest.
  const best = (of: (figures: AllFigures) => number): Point | undefined =>
    good.reduce<Point | undefined>((low, next) => {
      if (!low) return next
      const by = of(next.figures) - of(low.figures) || next.figures.time - low.figures.time
      return by < 0 ? next : low
    }, undefined)
  const within = limits.some(({ figure, most }) => figure === 'time' && most !== undefined) ? ' within the time' : ''
  const named = [
    { id: 'fastest', label: limits.length > 0 ? 'Fastest that meets all' : 'Fastest', point: best(({ time }) => time) },
    { id: 'smoothest', label: `Smoothest${within}`, point: best(({ surface }) => surface) },
    { id: 'strongest', label: `Strongest${within}`, point: best(({ strength }) => -strength) },
  ] as const
  return named.flatMap(({ id, label, point }) => (point ? [{ id, label, point }] : []))
}

/** The point nearest to a place of the plot, within so many pixels. */
export function nearestPoint(
  points: readonly Point[],
  at: (point: Point) => readonly [number, number],
  [px, py]: readonly [number, number],
  reach = 10,
): Point | undefined {
  let nearest: Point | undefined
  let best = reach * reach
  for (const point of points) {
    const [x, y] = at(point)
    const d = (x - px) ** 2 + (y - py) ** 2
    if (d <= best) {
      best = d
      nearest = point
    }
  }
  return nearest
}

export interface Box {
  readonly x: FigureId
  readonly y: FigureId
  readonly low: readonly [number, number]
  readonly high: readonly [number, number]
}

export const isIn = ({ x, y, low, high }: Box, { figures }: Point): boolean =>
  figures[x] >= low[0] && figures[x] <= high[0] && figures[y] >= low[1] && figures[y] <= high[1]

/** One limit of a figure put in place of what there was; nothing takes it away. */
export const withLimit = (limits: readonly FigureLimit[], { figure, better }: Axis, value: number | undefined): FigureLimit[] => [
  ...limits.filter((limit) => limit.figure !== figure),
  ...(value === undefined ? [] : [better === 'less' ? { figure, most: value } : { figure, least: value }]),
]

export const limitOn = (limits: readonly FigureLimit[], figure: FigureId): number | undefined => {
  const own = limits.find((limit) => limit.figure === figure)
  return own?.most ?? own?.least
}

/** Limits as they stand in an address: "time<3600,strength>80"; "none" where there are none. */
export const limitsText = (limits: readonly FigureLimit[]): string =>
  limits
    .flatMap(({ figure, most, least }) => [
      ...(most === undefined ? [] : [`${figure}<${Number(most.toPrecision(6))}`]),
      ...(least === undefined ? [] : [`${figure}>${Number(least.toPrecision(6))}`]),
    ])
    .join(',') || 'none'

/** Limits from an address; what cannot be read is left out. */
export const limitsFrom = (text: string): FigureLimit[] =>
  text.split(',').flatMap((part) => {
    const [, name, side, value] = /^(\w+)([<>])(-?[\d.]+(?:e-?\d+)?)$/.exec(part) ?? []
    const figure = figureIds.find((one) => one === name)
    if (!figure || !Number.isFinite(Number(value))) return []
    return [side === '<' ? { figure, most: Number(value) } : { figure, least: Number(value) }]
  })
