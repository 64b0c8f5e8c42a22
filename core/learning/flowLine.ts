/** Failing flow against temperature: ln Q = q + β·(T − 210 °C)/10. */
export interface FlowLine {
  /** Logarithm of the failing flow at 210 °C, in mm³/s. */
  readonly q: number
  /** What 10 °C bring, as a logarithm. */
  readonly slope: number
  /** Their covariance: of q, of both, of the slope. */
  readonly covariance: readonly [qq: number, qs: number, ss: number]
}

export interface LadderPoint {
  /** °C */
  readonly temperature: number
  /** Flow at which it failed, mm³/s. */
  readonly flow: number
  /** How well it is known, as a logarithm; as a ladder is read where that is not told. */
  readonly noise?: number | undefined
}

export const LADDER_AT = 210
/** How well a ladder is read, as a logarithm. Assumed. */
export const LADDER_NOISE = 0.08

/** What is thought of a flow line before any ladder was printed. */
export const flowLine = (failing: number, spread: number, slope: number, slopeSpread: number): FlowLine => ({
  q: Math.log(failing),
  slope,
  covariance: [spread ** 2, 0, slopeSpread ** 2],
})

/** A flow line after a ladder: the conjugate update of a line with two normal parameters (Kalman 1960), reading by reading. */
export function withLadder(
  { q, slope, covariance: [qq, qs, ss] }: FlowLine,
  { temperature, flow, noise = LADDER_NOISE }: LadderPoint,
): FlowLine {
  const x = (temperature - LADDER_AT) / 10
  const [toQ, toSlope] = [qq + x * qs, qs + x * ss]
  const variance = toQ + x * toSlope + noise ** 2
  const surprise = Math.log(flow) - q - slope * x
  return {
    q: q + (toQ / variance) * surprise,
    slope: slope + (toSlope / variance) * surprise,
    covariance: [qq - toQ ** 2 / variance, qs - (toQ * toSlope) / variance, ss - toSlope ** 2 / variance],
  }
}

/** Failing flow at a temperature, mm³/s, and its spread as a logarithm. */
export function flowAt({ q, slope, covariance: [qq, qs, ss] }: FlowLine, temperature: number): { median: number; spread: number } {
  const x = (temperature - LADDER_AT) / 10
  return { median: Math.exp(q + slope * x), spread: Math.sqrt(qq + 2 * x * qs + x * x * ss) }
}
