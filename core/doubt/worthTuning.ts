/** What a print and a trial before it take. */
export interface Tuning {
  /** Of one print, and of the trial's, s. */
  readonly printS: number
  readonly trialS: number
  readonly copies: number
  /** Of one's own for a trial, min: preparing, reading, writing down. */
  readonly ownMin: number
  /** What an own minute is worth in minutes of the machine. */
  readonly minuteWorth: number
}

/** Share of print time that a setting found by trial saves or spoils less, on average. Assumed. */
const GAIN = 0.15

export interface Worth {
  readonly worth: boolean
  /** Minutes of the machine: what it costs, and what it may bring. */
  readonly costs: number
  readonly brings: number
}

/**
 * Whether a print is worth tuning for: a print of minutes is not worth an hour of it, one of twenty hours is (CP-T10, common
 * practice). What it brings is a share of all copies' time, assumed.
 */
export function worthTuning({ printS, trialS, copies, ownMin, minuteWorth }: Tuning): Worth {
  const costs = ownMin * minuteWorth + trialS / 60
  const brings = (GAIN * copies * printS) / 60
  return { worth: brings > costs, costs, brings }
}
