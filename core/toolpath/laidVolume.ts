import { moveCount, type Toolpath } from './toolpath'

/** Plastic laid along a path, mm³. */
export function laidVolume(path: Toolpath): number {
  let volume = 0
  for (let m = 0; m < moveCount(path); m++) {
    const area = path.area[m]!
    if (area === 0) continue
    const dx = path.x[m + 1]! - path.x[m]!
    const dy = path.y[m + 1]! - path.y[m]!
    volume += area * Math.sqrt(dx * dx + dy * dy)
  }
  return volume
}
