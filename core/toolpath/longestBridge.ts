import { code, type Toolpath } from './toolpath'

/** The longest straight line that is laid across air, mm. */
export function longestBridge({ x, y, feature }: Toolpath): number {
  let longest = 0
  for (let m = 0; m < feature.length; m++)
    if (feature[m] === code.bridge) longest = Math.max(longest, Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!))
  return longest
}
