import { median } from 'd3-array'

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
/** Standard errors between both levels, and the least share that is worth a word. */
const APART = 3
const WORTH = 0.02

/**
 * The change of a machine or a reel, as prints in their order tell it: where two levels fit best, by least absolute deviations, so
 * that one bad print makes no change; told where both levels are apart by more than they scatter.
 *
 * @param noise what one print scatters by at least, as a logarithm
 * @returns undefined where nothing stands out
 */
export function driftOf(prints: readonly Off[], noise: number): Drift | undefined {
  const inOrder = prints.toSorted((a, b) => a.at.localeCompare(b.at))
  const logs = inOrder.map(({ log }) => log)
  let best: { readonly split: number; readonly left: number } | undefined
  for (let split = LEAST_BEFORE; split <= logs.length - LEAST_AFTER; split++) {
    const left = deviations(logs.slice(0, split)) + deviations(logs.slice(split))
    if (best === undefined || left < best.left) best = { split, left }
  }
  if (!best) return undefined
  const [before, after] = [logs.slice(0, best.split), logs.slice(best.split)]
  const by = median(after)! - median(before)!
  const scatter = Math.max(noise, (Math.sqrt(Math.PI / 2) * best.left) / logs.length)
  // Of a difference of medians; wider than of means by √(π/2).
  const error = Math.sqrt(Math.PI / 2) * scatter * Math.sqrt(1 / before.length + 1 / after.length)
  if (Math.abs(by) < Math.max(WORTH, APART * error)) return undefined
  return { since: inOrder[best.split]!.at, share: Math.expm1(by), prints: after.length }
}

/** Sum of the absolute deviations from the median. */
function deviations(values: readonly number[]): number {
  const middle = median(values)!
  return values.reduce((sum, value) => sum + Math.abs(value - middle), 0)
}
