/**
 * Largest speed, squared, at a corner between two straights, from how far the rounded path may leave the corner
 * (Jeon 2011, "junction deviation", derived publicly for a small open CNC controller; quoted from memory).
 *
 * With `c` the speed allowed round a square corner, δ = c²·(√2 − 1)/a and v² = a·δ·sin(θ/2)/(1 − sin(θ/2)), θ the angle
 * between the reversed entry and the exit; a cancels. Curves made of short chords obey v² ≤ ½·a·l·tan(θ/2) for both
 * neighbours as well, the centripetal limit.
 *
 * @param cosTurn cosine of the angle between entry and exit: 1 straight on, −1 straight back
 * @param cornerSpeed c, mm/s
 * @param accelerationLength smaller a·l of the two neighbours, mm²/s²
 */
export function deviationCornerSquared(cosTurn: number, cornerSpeed: number, accelerationLength: number): number {
  if (cosTurn >= 1) return Infinity
  if (cosTurn <= -1) return 0
  const sinHalf = Math.sqrt((1 + cosTurn) / 2)
  const cosHalf = Math.sqrt((1 - cosTurn) / 2)
  const byDeviation = (cornerSpeed * cornerSpeed * (Math.SQRT2 - 1) * sinHalf) / (1 - sinHalf)
  const byCentripetal = (0.5 * accelerationLength * sinHalf) / cosHalf
  return Math.min(byDeviation, byCentripetal)
}

/** Largest speed at a corner when no axis may change its speed at once by more than `jump` mm/s. */
export function instantChangeCorner(dux: number, duy: number, duz: number, jump: number): number {
  const most = Math.max(Math.abs(dux), Math.abs(duy), Math.abs(duz))
  return most === 0 ? Infinity : jump / most
}
