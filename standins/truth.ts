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
  /** Temperatures between which its filament prints clean, °C as the melt really has them. */
  readonly window: { readonly low: number; readonly high: number }
  /** By how much more it strings for each hour that the reel hangs in the air. */
  readonly wetPerHour: number
  /** By how much more it strings because its reel is damp from the beginning: 0 is dry. */
  readonly damp: number
  /** Of each pull, what never arrives at the nozzle, mm. */
  readonly pullSlackMm: number
  /** Share of what is asked that the bore lets through: 1 is free. */
  readonly boreOpen: number
  /** Of what a usual fan cools. */
  readonly fanFactor: number
  /** Natural frequency of the frame, Hz, and how loose its belts are: 1 is tight. */
  readonly frameHz: number
  readonly looseness: number
  /** What its table gives, mm by 100 mm of height and 1000 mm/s². */
  readonly tableGives: number
  /** Within a layer, MPa; and between layers as a share of it. */
  readonly strengthMpa: number
  readonly bond: number
  /** As a share of each length. */
  readonly shrinks: number
}

/** A machine drawn from what machines are thought to be like: acceleration within a fifth, pace within 4 %, and so on. Assumed. */
export function truthFrom(seed: number): Truth {
  const random = seededBy(seed)
  const about = (median: number, spread: number): number => median * Math.exp(spread * normalBy(random))
  const frame = {
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
  const low = 192 + 7 * normalBy(random)
  return {
    ...frame,
    window: { low, high: low + 9 + 4 * Math.abs(normalBy(random)) },
    wetPerHour: 0.004 * random(),
    damp: 0,
    pullSlackMm: 0,
    boreOpen: 1,
    fanFactor: about(1, 0.1),
    frameHz: about(48, 0.2),
    looseness: 1,
    tableGives: 0,
    strengthMpa: about(50, 0.12),
    bond: Math.min(0.95, about(0.65, 0.15)),
    shrinks: about(0.003, 0.3),
  }
}
