/** What is thought of a quantity: the median and one standard deviation of its logarithm. */
export interface LogNormal {
  readonly median: number
  readonly spread: number
}

/** Readings of one quantity, with what one of them scatters by and what those of one print have in common, both as logarithms. */
export interface Readings {
  readonly values: readonly number[]
  readonly noise: number
  readonly batch?: number
}

/**
 * Narrows what is thought of a quantity by readings, on the logarithm: with the variance of their mean v = s²/n + batch² and
 * the weight w = s0²/(s0² + v), the mean is (1 − w)·m0 + w·ȳ and the spread √(s0²·v/(s0² + v)) (normal conjugate update, any
 * text on Bayesian statistics). The spread never grows. A reading that lies far from the others of its print counts for less.
 */
export function narrow({ median, spread }: LogNormal, { values, noise, batch = 0 }: Readings): LogNormal {
  if (values.length === 0) return { median, spread }
  const prior = spread ** 2
  const variance = noise ** 2 / values.length + batch ** 2
  const mean = robustMean(values.map(Math.log), noise)
  const weight = prior / (prior + variance)
  return {
    median: Math.exp((1 - weight) * Math.log(median) + weight * mean),
    spread: Math.sqrt((prior * variance) / (prior + variance)),
  }
}

/** Degrees of freedom of the scatter that readings are thought to have: a few in a hundred are far off. Common choice. */
const FREEDOM = 4
const ROUNDS = 60

/** Weight of a reading that lies so many times its noise off: that of Student's distribution, (ν + 1)/(ν + z²) (Lange, Little and Taylor 1989). */
export const studentWeight = (z: number): number => (FREEDOM + 1) / (FREEDOM + z * z)

/** Mean of readings about their median: what lies within its noise counts in full, a flawed bar for little. */
function robustMean(readings: readonly number[], noise: number): number {
  const sorted = [...readings].sort((a, b) => a - b)
  let mean = (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2
  for (let round = 0; round < ROUNDS; round++) {
    const weights = sorted.map((reading) => Math.min(1, studentWeight((reading - mean) / noise)))
    const total = weights.reduce((sum, weight) => sum + weight, 0)
    mean = sorted.reduce((sum, reading, i) => sum + weights[i]! * reading, 0) / total
  }
  return mean
}

/** The same on a plain scale: the median is a mean, spreads are in its own unit. */
export function narrowPlain({ median, spread }: LogNormal, { values, noise, batch = 0 }: Readings): LogNormal {
  const onLog = narrow({ median: Math.exp(median), spread }, { values: values.map(Math.exp), noise, batch })
  return { median: Math.log(onLog.median), spread: onLog.spread }
}
