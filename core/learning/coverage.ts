/** Standard deviations on either side that hold 80 % of a normal distribution. */
export const EIGHTY = 1.2816

/** By how many standard deviations a prediction was off, from real and foretold, the spread as a logarithm. */
export const scoreOf = (actual: number, predicted: number, spread: number): number => Math.abs(Math.log(actual / predicted)) / spread

/** Scores of a normal distribution at the middles of five even parts: as if five prints had gone as expected. */
const EXPECTED = [0.126, 0.385, 0.674, 1.036, 1.645] as const
const SHARE = 0.8

/**
 * Standard deviations that hold four of five prints, by what the log's own predictions were off: the ⌈0.8·(n + 1)⌉-th smallest score
 * (split conformal prediction, Vovk, Gammerman and Shafer 2005). Undefined where there are too few.
 *
 * @param scores of predictions that were made before their prints
 */
export function conformal(scores: readonly number[], expected: readonly number[] = EXPECTED): number | undefined {
  const sorted = [...scores, ...expected].sort((a, b) => a - b)
  return sorted[Math.ceil(SHARE * (sorted.length + 1)) - 1]
}

/** Standard normal deviate of a two-sided 95 % interval. */
const Z95 = 1.959964

/** Interval of a share of which so many of so many succeeded, 95 % (Wilson 1927). Of nothing it is everything. */
export function wilson(successes: number, of: number): readonly [low: number, high: number] {
  if (of === 0) return [0, 1]
  const share = successes / of
  const z2 = Z95 ** 2
  const middle = (share + z2 / (2 * of)) / (1 + z2 / of)
  const half = (Z95 / (1 + z2 / of)) * Math.sqrt((share * (1 - share)) / of + z2 / (4 * of ** 2))
  return [Math.max(0, middle - half), Math.min(1, middle + half)]
}
