/** A print by the day and the logarithm of real over foretold. */
export interface Off {
  readonly at: string
  readonly log: number
}

/** From when on prints are off by another share than before, and by how much more. */
export interface Drift {
  readonly since: string
  /** Share by which they take more than those before: 0.04 is four per cent. */
  readonly share: number
  readonly prints: number
}

/** So few prints on the newer side are an accident. */
const LEAST_AFTER = 3
const LEAST_BEFORE = 3
/** Standard errors between both sides, and the least share that is worth a word. */
const APART = 3
const WORTH = 0.02

/**
 * The last change of a machine or a reel, as prints in their order tell it: the point at which those before and after are furthest
 * apart, in standard errors of their difference about robust middles (a two-sample test at each point, Page 1954 for the idea).
 *
 * @param noise what one print scatters by at least, as a logarithm
 * @returns undefined where nothing stands out
 */
export function driftOf(prints: readonly Off[], noise: number): Drift | undefined {
  const inOrder = prints.toSorted((a, b) => a.at.localeCompare(b.at))
  let most = APART
  let found: Drift | undefined
  for (let split = LEAST_BEFORE; split <= inOrder.length - LEAST_AFTER; split++) {
    const [before, after] = [inOrder.slice(0, split), inOrder.slice(split)].map((side) => side.map(({ log }) => log)) as [
      number[],
      number[],
    ]
    const [was, is] = [median(before), median(after)]
    const scatter = Math.max(
      noise,
      SIGMA * median([...before.map((log) => Math.abs(log - was)), ...after.map((log) => Math.abs(log - is))]),
    )
    // Of a median; wider than of a mean by √(π/2).
    const error = Math.sqrt(Math.PI / 2) * scatter * Math.sqrt(1 / before.length + 1 / after.length)
    const apart = Math.abs(is - was) / error
    if (apart < most || Math.abs(is - was) < WORTH) continue
    most = apart
    found = { since: inOrder[split]!.at, share: Math.expm1(is - was), prints: after.length }
  }
  return found
}

/** Standard deviation of a normal distribution over the median of its absolute deviations. */
const SIGMA = 1.4826

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return (sorted[(sorted.length - 1) >> 1]! + sorted[sorted.length >> 1]!) / 2
}
