/** A direction, of length 1, and whether what acts along it presses. */
export interface Principal {
  readonly way: readonly [number, number, number]
  readonly isPressed: boolean
  /** MPa, more than 0 where it pulls. */
  readonly stress: number
}

/** Turns of Jacobi's after which three axes are straight to the last digits. */
const SWEEPS = 8

/**
 * The principal stress that is largest, whichever way it acts.
 *
 * @param s σx, σy, σz, τyz, τxz, τxy, MPa
 */
export function principal(s: ArrayLike<number>): Principal {
  const m = [s[0]!, s[5]!, s[4]!, s[5]!, s[1]!, s[3]!, s[4]!, s[3]!, s[2]!]
  const v = [1, 0, 0, 0, 1, 0, 0, 0, 1]
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    for (const [p, q] of [
      [0, 1],
      [0, 2],
      [1, 2],
    ] as const) {
      const off = m[3 * p + q]!
      if (Math.abs(off) < 1e-12) continue
      const t = (m[4 * q]! - m[4 * p]!) / (2 * off)
      const tangent = (t >= 0 ? 1 : -1) / (Math.abs(t) + Math.sqrt(t * t + 1))
      const c = 1 / Math.sqrt(tangent * tangent + 1)
      const n = tangent * c
      for (let k = 0; k < 3; k++) {
        const [a, b] = [m[3 * k + p]!, m[3 * k + q]!]
        m[3 * k + p] = c * a - n * b
        m[3 * k + q] = n * a + c * b
      }
      for (let k = 0; k < 3; k++) {
        const [a, b] = [m[3 * p + k]!, m[3 * q + k]!]
        m[3 * p + k] = c * a - n * b
        m[3 * q + k] = n * a + c * b
        const [x, y] = [v[3 * k + p]!, v[3 * k + q]!]
        v[3 * k + p] = c * x - n * y
        v[3 * k + q] = n * x + c * y
      }
    }
  const largest = [0, 1, 2].reduce((most, k) => (Math.abs(m[4 * k]!) > Math.abs(m[4 * most]!) ? k : most), 0)
  return { way: [v[largest]!, v[3 + largest]!, v[6 + largest]!], isPressed: m[4 * largest]! < 0, stress: m[4 * largest]! }
}
