import { normalBy, seededBy } from './random'

/** How a machine and its reel really are. Nobody is told but by what they do. */
export interface Truth {
  /** Of the acceleration that it is told. */
  readonly accelerationFactor: number
  /** All moves take so many times as long. */
  readonly pace: number
  /** Extra seconds before the first move. */
  readonly startS: number
  /** °C by which its thermometer reads too high. */
  readonly thermometer: number
  /** Flow at which it fails at 210 °C, mm³/s, and the logarithm that 10 °C bring. */
  readonly failingFlow: number
  readonly flowSlope: number
  /** Plastic that comes out over what is asked. */
  readonly flowFactor: number
  /** Strings per open way without retraction. */
  readonly ooze: number
  /** Time constants of nozzle and bed, s. */
  readonly nozzleTauS: number
  readonly bedTauS: number
}

/** A machine drawn from what machines are thought to be like: acceleration within a fifth, pace within 4 %, and so on. Assumed. */
export function truthFrom(seed: number): Truth {
  const random = seededBy(seed)
  const about = (median: number, spread: number): number => median * Math.exp(spread * normalBy(random))
  return {
    accelerationFactor: about(1, 0.2),
    pace: about(1, 0.04),
    startS: Math.max(0, 30 + 20 * normalBy(random)),
    thermometer: 3 * normalBy(random),
    failingFlow: about(25.6, 0.2),
    flowSlope: 0.26 + 0.06 * normalBy(random),
    flowFactor: about(1, 0.03),
    ooze: about(1, 0.6),
    nozzleTauS: about(45, 0.15),
    bedTauS: about(120, 0.15),
  }
}
