/** What a band of a temperature tower looked like: gaps where it is too cold, strings where it is too hot. */
export type Seen = 'gaps' | 'clean' | 'strings'

export interface SeenAt {
  readonly temperature: number
  readonly seen: Seen
}

export interface CleanWindow {
  /** Temperatures between which the spool most likely prints clean, °C: means of both edges. */
  readonly low: number
  readonly high: number
  /** Middle of the window, °C, and its standard deviation. */
  readonly best: number
  readonly spread: number
}

/** How far an edge of the window is blurred, °C. Assumed: what two towers of one spool differ by. */
const BLUR = 2
/** Edges are looked for as far as this beyond the bands, °C. */
const BEYOND = 20
const STEP = 0.5

/**
 * The window in which a spool prints clean: clean with probability Λ((T − T1)/w)·Λ((T2 − T)/w), Λ the logistic function, gaps
 * and strings by the edge that fails; posterior of both edges on a grid with a flat prior.
 *
 * @returns nothing where no band was read
 */
export function cleanWindow(bands: readonly SeenAt[]): CleanWindow | undefined {
  if (bands.length === 0) return undefined
  const temperatures = bands.map(({ temperature }) => temperature)
  const [from, to] = [Math.min(...temperatures) - BEYOND, Math.max(...temperatures) + BEYOND]
  const edges = Array.from({ length: Math.round((to - from) / STEP) + 1 }, (_, i) => from + i * STEP)
  let [sum, low, high, best, squares] = [0, 0, 0, 0, 0]
  for (const cold of edges) {
    for (const hot of edges) {
      if (hot < cold) continue
      const weight = bands.reduce((product, band) => product * likelihood(band, cold, hot), 1)
      const middle = (cold + hot) / 2
      sum += weight
      low += weight * cold
      high += weight * hot
      best += weight * middle
      squares += weight * middle * middle
    }
  }
  if (sum === 0) return undefined
  return { low: low / sum, high: high / sum, best: best / sum, spread: Math.sqrt(Math.max(0, squares / sum - (best / sum) ** 2)) }
}

function likelihood({ temperature, seen }: SeenAt, cold: number, hot: number): number {
  const [warm, cool] = [logistic((temperature - cold) / BLUR), logistic((hot - temperature) / BLUR)]
  if (seen === 'clean') return warm * cool
  return seen === 'gaps' ? (1 - warm) * cool : (1 - cool) * warm
}

const logistic = (x: number): number => 1 / (1 + Math.exp(-x))
