/** A point of a search: what is to be made small, and by how much it misses its limits; 0 where it meets them. */
export interface Scored {
  /** One entry an objective; less is better. */
  readonly costs: readonly number[]
  readonly misses: number
}

/**
 * Whether one point is better than another: no worse in anything and better in something. One that meets the limits is better
 * than any that does not, and of two that do not, the one that misses less (Deb's constrained domination, 2002).
 */
export function dominates(a: Scored, b: Scored): boolean {
  if (a.misses !== b.misses) return a.misses < b.misses
  let better = false
  for (let i = 0; i < a.costs.length; i++) {
    if (a.costs[i]! > b.costs[i]!) return false
    if (a.costs[i]! < b.costs[i]!) better = true
  }
  return better
}

/** Places of the points that no other one dominates, in their order. */
export const frontOf = (points: readonly Scored[]): number[] => sortIntoFronts(points)[0] ?? []

/** Places of points, front behind front: no point of a front is dominated by one of its own or of a later one (Deb et al. 2002, §III A). */
export function sortIntoFronts(points: readonly Scored[]): number[][] {
  const below: number[][] = points.map(() => [])
  const above = new Uint32Array(points.length)
  for (let a = 0; a < points.length; a++) {
    for (let b = a + 1; b < points.length; b++) {
      if (dominates(points[a]!, points[b]!)) {
        below[a]!.push(b)
        above[b]!++
      } else if (dominates(points[b]!, points[a]!)) {
        below[b]!.push(a)
        above[a]!++
      }
    }
  }
  const fronts: number[][] = []
  let front = [...points.keys()].filter((i) => above[i] === 0)
  while (front.length > 0) {
    fronts.push(front)
    const next: number[] = []
    for (const i of front) for (const j of below[i]!) if (--above[j]! === 0) next.push(j)
    front = next.sort((a, b) => a - b)
  }
  return fronts
}

/** How far each point of a front stands from its neighbours; the ends of every objective stand farthest (Deb et al. 2002, §III B). */
export function crowdingDistances(points: readonly Scored[], front: readonly number[]): Map<number, number> {
  const distance = new Map(front.map((i) => [i, 0]))
  for (let objective = 0; objective < (points[front[0]!]?.costs.length ?? 0); objective++) {
    const sorted = [...front].sort((a, b) => points[a]!.costs[objective]! - points[b]!.costs[objective]! || a - b)
    const at = (i: number): number => points[sorted[i]!]!.costs[objective]!
    const spread = at(sorted.length - 1) - at(0)
    for (const [rank, i] of sorted.entries()) {
      const end = rank === 0 || rank === sorted.length - 1
      const gap = end ? Infinity : spread > 0 ? (at(rank + 1) - at(rank - 1)) / spread : 0
      distance.set(i, distance.get(i)! + gap)
    }
  }
  return distance
}

/** Area that the points of two objectives dominate up to a reference; what lies beyond the reference counts nothing. */
export function hypervolume(points: readonly (readonly [number, number])[], reference: readonly [number, number]): number {
  const within = points.filter(([x, y]) => x < reference[0] && y < reference[1]).sort((a, b) => a[0] - b[0] || a[1] - b[1])
  let area = 0
  let height = reference[1]
  for (const [x, y] of within) {
    if (y >= height) continue
    area += (reference[0] - x) * (height - y)
    height = y
  }
  return area
}
