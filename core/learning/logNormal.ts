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
 * text on Bayesian statistics). The spread never grows.
 */
export function narrow({ median, spread }: LogNormal, { values, noise, batch = 0 }: Readings): LogNormal {
  if (values.length === 0) return { median, spread }
  const prior = spread ** 2
  const variance = noise ** 2 / values.length + batch ** 2
  const mean = values.reduce((sum, value) => sum + Math.log(value), 0) / values.length
  const weight = prior / (prior + variance)
  return {
    median: Math.exp((1 - weight) * Math.log(median) + weight * mean),
    spread: Math.sqrt((prior * variance) / (prior + variance)),
  }
}

/** The same on a plain scale: the median is a mean, spreads are in its own unit. */
export function narrowPlain({ median, spread }: LogNormal, { values, noise, batch = 0 }: Readings): LogNormal {
  const onLog = narrow({ median: Math.exp(median), spread }, { values: values.map(Math.exp), noise, batch })
  return { median: Math.log(onLog.median), spread: onLog.spread }
}
