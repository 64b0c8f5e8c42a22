import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import type { Zone } from '@sable/core/search/leastTime'

/** What comes nearer to failing than this, as a share of the limit, belongs to the zone; around it so much is added, mm. */
const [NEAR, AROUND] = [0.6, 3]

/**
 * The box of a part in which it is near to failing; nothing where that is hardly less than all of it.
 *
 * @param times the load that is wanted over the one at which it fails
 */
export function zoneOf({ cells }: SolvedPicture, times: number): Zone | undefined {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ]
  let inside = 0
  for (let c = 0; c < cells.lines.length; c++) {
    if (times * Math.hypot(cells.lines[c]!, cells.layers[c]!) < NEAR) continue
    for (let k = 0; k < 3; k++) {
      low[k] = Math.min(low[k]!, cells.middles[3 * c + k]! - cells.size[k]! / 2 - AROUND)
      high[k] = Math.max(high[k]!, cells.middles[3 * c + k]! + cells.size[k]! / 2 + AROUND)
    }
  }
  for (let c = 0; c < cells.lines.length; c++)
    if ([0, 1, 2].every((k) => cells.middles[3 * c + k]! >= low[k]! && cells.middles[3 * c + k]! <= high[k]!)) inside++
  // A place that holds most of the part saves nothing.
  if (inside === 0 || inside > 0.8 * cells.lines.length) return undefined
  const tidy = (mm: number): number => Number(mm.toFixed(1))
  return { low: low.map(tidy) as unknown as Zone['low'], high: high.map(tidy) as unknown as Zone['high'] }
}
