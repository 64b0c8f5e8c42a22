import { isOfPart } from '@sable/core/toolpath/toolpath'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import type { FlatBox } from '../../charts/FlatDrawing'

export interface Boxes {
  readonly x: readonly [number, number]
  readonly y: readonly [number, number]
  readonly plan: FlatBox
  readonly acrossX: FlatBox
  readonly acrossY: FlatBox
}

/** What the part lies within, seen from above and from either side. */
export function boxesOf(all: readonly DrawnMoves[]): Boxes {
  const low = [Infinity, Infinity, 0]
  const high = [-Infinity, -Infinity, 0]
  for (const { x, y, z, feature } of all) {
    for (let m = 0; m < feature.length; m++) {
      if (!isOfPart(feature[m]!)) continue
      if (x[m + 1]! < low[0]!) low[0] = x[m + 1]!
      if (x[m + 1]! > high[0]!) high[0] = x[m + 1]!
      if (y[m + 1]! < low[1]!) low[1] = y[m + 1]!
      if (y[m + 1]! > high[1]!) high[1] = y[m + 1]!
      if (z[m + 1]! > high[2]!) high[2] = z[m + 1]!
    }
  }
  const box = (u: 0 | 1, v: 1 | 2): FlatBox => ({ low: [low[u]!, low[v]!], high: [high[u]!, high[v]!] })
  return { x: [low[0]!, high[0]!], y: [low[1]!, high[1]!], plan: box(0, 1), acrossX: box(1, 2), acrossY: box(0, 2) }
}
