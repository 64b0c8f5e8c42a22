/** Strings that a band drew, and what it was exposed to: open ways × what the pull lets through. */
export interface StringCount {
  readonly count: number
  readonly exposure: number
}

/** Strings per open way with nothing pulled back, of one spool: a Gamma distribution by shape and rate. */
export interface Ooze {
  readonly shape: number
  readonly rate: number
}

/** What is thought before anything was counted: about one, by about seven tenths of it. */
export const unknownOoze: Ooze = { shape: 2, rate: 2 }

/** After bands were counted: Poisson counts with a Gamma prior (conjugate, any text on Bayesian statistics). */
export const countedOoze = (before: Ooze, counts: readonly StringCount[]): Ooze => ({
  shape: before.shape + counts.reduce((sum, { count }) => sum + count, 0),
  rate: before.rate + counts.reduce((sum, { exposure }) => sum + exposure, 0),
})

export const meanOoze = ({ shape, rate }: Ooze): number => shape / rate
/** As a logarithm, near enough for what follows from it. */
export const spreadOfOoze = ({ shape }: Ooze): number => 1 / Math.sqrt(shape)

/** Share of the strings that a pull lets through: e^(−L/L0) + r. */
export const letThrough = (pull: number, slack: number, stays: number): number => Math.exp(-pull / slack) + stays

/** A band counts as clean with less than this many strings. */
const CLEAN = 0.5

/** The least pull, mm, that leaves under half a string on so many ways; undefined where none does, up to `most`. */
export function leastPull(ooze: number, ways: number, slack: number, stays: number, most: number): number | undefined {
  const share = CLEAN / (ooze * ways) - stays
  if (share >= 1) return 0
  if (share <= 0) return undefined
  const pull = -slack * Math.log(share)
  return pull <= most ? pull : undefined
}
