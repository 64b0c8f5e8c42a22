import type { PolygonOps, Region } from './polygon'

/**
 * For every i, what `regions[i] … regions[i + width - 1]` have in common; regions past the end count as empty.
 *
 * Prefix and suffix intersections within blocks of `width` regions (van Herk 1992; Gil & Werman 1993) make it three
 * operations a region however wide the window is.
 *
 * @param width at least 1
 */
export function slidingIntersection(ops: PolygonOps, regions: readonly Region[], width: number): Region[] {
  const count = regions.length
  const prefix: Region[] = []
  const suffix: Region[] = new Array(count)
  for (let i = 0; i < count; i++) prefix[i] = i % width === 0 ? regions[i]! : ops.intersect(prefix[i - 1]!, regions[i]!)
  for (let i = count - 1; i >= 0; i--)
    suffix[i] = i % width === width - 1 || i === count - 1 ? regions[i]! : ops.intersect(regions[i]!, suffix[i + 1]!)
  const nothing = ops.empty()
  return regions.map((_, i) => {
    const last = i + width - 1
    if (last >= count) return nothing
    return i % width === 0 ? prefix[last]! : ops.intersect(suffix[i]!, prefix[last]!)
  })
}
