import { code, moveCount, type Toolpath } from './toolpath'

/** Plastic laid along a path, mm³, and how much of it is taken off afterwards. */
export interface LaidVolume {
  readonly total: number
  readonly support: number
  /** Skirt and brim. */
  readonly foot: number
}

export function laidVolume(path: Toolpath): LaidVolume {
  const sums = { total: 0, support: 0, foot: 0 }
  for (let m = 0; m < moveCount(path); m++) {
    const area = path.area[m]!
    if (area === 0) continue
    const dx = path.x[m + 1]! - path.x[m]!
    const dy = path.y[m + 1]! - path.y[m]!
    const volume = area * Math.sqrt(dx * dx + dy * dy)
    sums.total += volume
    const feature = path.feature[m]!
    if (feature === code.foot) sums.foot += volume
    else if (feature >= code.support) sums.support += volume
  }
  return sums
}
