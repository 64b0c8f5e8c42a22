import type { Mesh } from '@sable/core/mesh/mesh'
import { block } from './block'
import { roundedRectangle } from './ring'

/** A plain tray for four round cells side by side: nobody sees it, it only has to hold and to be quick. */
export function batteryTray(): Mesh {
  const [cells, bay, wall] = [4, 19, 2]
  const width = cells * bay + (cells + 1) * wall
  const pockets = Array.from({ length: cells }, (_, i) => ({
    ring: roundedRectangle(-width / 2 + wall + bay / 2 + i * (bay + wall), 0, bay, 66, 3),
    floor: 2,
  }))
  return block(roundedRectangle(0, 0, width, 66 + 2 * wall, 4), pockets, 16)
}
