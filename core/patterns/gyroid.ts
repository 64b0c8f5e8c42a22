/**
 * Share of solid of a gyroid is its line's width times the length of line in an area. Of all surfaces in space, the length
 * cut by a plane is π/4 of the surface in a volume on average over directions (stereology), and a gyroid of period L has
 * 3.0915/L of surface (Schoen 1970; both from memory; the density is tested against laid lines).
 */
const SURFACE = 3.0915
const POINTS_PER_PERIOD = 20

/** Period of a gyroid of lines `width` wide that fills `density` (0–1), mm. */
export const gyroidPeriod = (width: number, density: number): number => ((Math.PI / 4) * SURFACE * width) / density

/**
 * Lines of sin x·cos y + sin y·cos z + sin z·cos x = 0 at height `z`, over a box, in mm. Solved for one coordinate along
 * the other: with a = sin z and b = cos z, sin x·cos y + b·sin y = −a·cos x has the solutions
 * y = atan2(b, sin x) ± acos(−a·cos x/√(sin²x + b²)), which exist for every x when b² ≥ ½; else x and y change places.
 */
export function gyroidLines(
  period: number,
  z: number,
  box: readonly [minX: number, maxX: number, minY: number, maxY: number],
): Float64Array[] {
  const k = (2 * Math.PI) / period
  const a = Math.sin(z * k)
  const b = Math.cos(z * k)
  const along = b * b >= 0.5
  const [from, to, low, high] = along ? box : [box[2], box[3], box[0], box[1]]
  const steps = Math.max(2, Math.ceil(((to - from) / period) * POINTS_PER_PERIOD))
  const turns = [Math.floor((low * k) / (2 * Math.PI)) - 2, Math.ceil((high * k) / (2 * Math.PI)) + 2] as const
  const lines: Float64Array[] = []
  for (const sign of [1, -1]) {
    const phase = new Float64Array(steps + 1)
    for (let i = 0; i <= steps; i++) {
      const u = (from + ((to - from) * i) / steps) * k
      phase[i] = along ? solve(b, Math.sin(u), -a * Math.cos(u), sign) : solve(Math.cos(u), a, -b * Math.sin(u), sign)
    }
    unwrap(phase)
    for (let turn = turns[0]; turn <= turns[1]; turn++) {
      const line = new Float64Array(2 * (steps + 1))
      let [least, most] = [Infinity, -Infinity]
      for (let i = 0; i <= steps; i++) {
        const u = from + ((to - from) * i) / steps
        const v = (phase[i]! + 2 * Math.PI * turn) / k
        line[2 * i + (along ? 0 : 1)] = u
        line[2 * i + (along ? 1 : 0)] = v
        least = Math.min(least, v)
        most = Math.max(most, v)
      }
      if (most >= low && least <= high) lines.push(line)
    }
  }
  return lines
}

/** v with p·sin v + q·cos v = c. */
function solve(p: number, q: number, c: number, sign: number): number {
  const amplitude = Math.hypot(p, q)
  return Math.atan2(p, q) + sign * Math.acos(Math.max(-1, Math.min(1, c / amplitude)))
}

/** Takes out jumps of a whole turn, so that a line is continuous. */
function unwrap(phase: Float64Array): void {
  for (let i = 1; i < phase.length; i++) {
    phase[i]! -= 2 * Math.PI * Math.round((phase[i]! - phase[i - 1]!) / (2 * Math.PI))
  }
}
