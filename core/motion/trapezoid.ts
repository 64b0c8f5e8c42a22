/**
 * Time, s, over a straight of `length` mm from speed `v0` to `v1`, never above `peak` mm/s, at `acceleration` mm/s²: the
 * fastest one when `peak` is the smaller of the cap and the tip of the triangle. Expects |v1² − v0²| ≤ 2·a·l.
 *
 * From rest to rest this is l/v + v/a for l ≥ v²/a, else 2·√(l/a) (any text on kinematics).
 */
export function timeAtPeak(length: number, v0: number, v1: number, peak: number, acceleration: number): number {
  if (peak <= 0) return 0
  const ramps = (2 * peak * peak - v0 * v0 - v1 * v1) / (2 * acceleration)
  const level = ramps > 0 ? length - ramps : length
  return (2 * peak - v0 - v1) / acceleration + (level > 0 ? level / peak : 0)
}

/** Speed at the tip of the triangle that fits the straight, mm/s. */
export const peakSpeed = (length: number, v0: number, v1: number, acceleration: number): number =>
  Math.sqrt((v0 * v0 + v1 * v1) / 2 + acceleration * length)
