import { code, type Feature, features, isLaid, laidFeatures, type Toolpath } from '../toolpath/toolpath'
import { type Limiter, limiters } from './limiters'
import type { Motion } from './planMotion'

/** Rows under which printing time is told. */
export const timeRows = [
  'outerWall',
  'innerWall',
  'thin',
  'topBottom',
  'bridge',
  'ironing',
  'infill',
  'support',
  'foot',
  'travel',
  'retraction',
] as const
export type TimeRow = (typeof timeRows)[number]

/** How fast a feature really runs. */
export interface RealSpeed {
  /** Nine tenths of the feature's length run no faster than this, mm/s; 0 where there is none of it. */
  readonly speedMmS: number
  /** What holds most of the length that runs at about that speed. */
  readonly limiter: Limiter
}

export interface TimeFigures {
  readonly timeS: number
  /** The same had no layer been slowed for its least time. */
  readonly unslowedS: number
  readonly timeByFeatureS: Readonly<Record<TimeRow, number>>
  /** Share of the time spent laying plastic that each limiter holds; sums to 1. */
  readonly limiters: Readonly<Record<Limiter, number>>
  readonly realSpeeds: Readonly<Record<(typeof laidFeatures)[number] | 'travel', RealSpeed>>
  /** Layers that stay below the least layer time even at the floor speed. */
  readonly layersTooFast: number
  /** Layers that were slowed for their least time. */
  readonly layersSlowed: number
}

const rowOf: Readonly<Record<Feature, TimeRow>> = {
  travel: 'travel',
  retract: 'retraction',
  pushBack: 'retraction',
  wipe: 'retraction',
  coast: 'travel',
  outerWall: 'outerWall',
  innerWall: 'innerWall',
  thin: 'thin',
  topBottom: 'topBottom',
  bridge: 'bridge',
  ironing: 'ironing',
  infill: 'infill',
  support: 'support',
  supportTop: 'support',
  foot: 'foot',
}

/** Sums a planned motion up. @param leastIn least layer time in a scope, s */
export function timeFigures(path: Toolpath, motion: Motion, leastIn: (scope: number) => number): TimeFigures {
  const sums = new TimeSums()
  for (let layer = 0; layer < path.layerStart.length - 1; layer++) sums.addLayer(path, motion, layer)
  const { timeByCode, timeByLimiter, pace } = sums
  const timeByFeatureS = Object.fromEntries(timeRows.map((row) => [row, 0])) as Record<TimeRow, number>
  for (const [i, feature] of features.entries()) timeByFeatureS[rowOf[feature]] += timeByCode[i]!
  const laying = features.reduce((sum, _, i) => sum + (isLaid(i) ? timeByCode[i]! : 0), 0)
  const share = (limiter: number): number =>
    laying === 0 ? 0 : features.reduce((sum, _, i) => sum + (isLaid(i) ? timeByLimiter[i * limiters.length + limiter]! : 0), 0) / laying
  return {
    timeS: motion.layerTime.reduce((sum, time) => sum + time, 0),
    unslowedS: motion.layerUnslowed.reduce((sum, time) => sum + time, 0),
    timeByFeatureS,
    limiters: Object.fromEntries(limiters.map((limiter, i) => [limiter, share(i)])) as Record<Limiter, number>,
    realSpeeds: Object.fromEntries(
      [...laidFeatures, 'travel' as const].map((feature) => [feature, pace[code[feature]]?.quantile(0.9) ?? NOWHERE]),
    ) as TimeFigures['realSpeeds'],
    // A layer is slowed by what holds where it begins, as its plan is.
    layersTooFast: motion.layerTime.reduce((n, time, layer) => {
      const least = leastIn(path.scope[path.layerStart[layer]!] ?? 0)
      return n + (time < least * 0.999 ? 1 : 0)
    }, 0),
    layersSlowed: motion.layerScale.reduce((n, scale) => n + (scale < 1 ? 1 : 0), 0),
  }
}

/** Sums over moves. Layer by layer, so that the compiler meets a small loop often. */
class TimeSums {
  /** s, by feature, and by feature and limiter. */
  readonly timeByCode = new Float64Array(features.length)
  readonly timeByLimiter = new Float64Array(features.length * limiters.length)
  /** Of features that move. */
  readonly pace: SpeedHistogram[] = []

  addLayer({ x, y, feature, layerStart }: Toolpath, { duration, peak, limiter }: Motion, layer: number): void {
    const { timeByCode, timeByLimiter, pace } = this
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const kind = feature[m]!
      timeByCode[kind]! += duration[m]!
      timeByLimiter[kind * limiters.length + limiter[m]!]! += duration[m]!
      if (kind === code.retract || kind === code.pushBack) continue
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      pace[kind] ??= new SpeedHistogram()
      pace[kind].add(peak[m]!, Math.sqrt(dx * dx + dy * dy), limiter[m]!)
    }
  }
}

const NOWHERE: RealSpeed = { speedMmS: 0, limiter: 'asked' }

/** Lengths by speed and limiter, in steps fine enough to tell speeds apart that a person would. */
class SpeedHistogram {
  private static readonly STEP = 1
  private static readonly BINS = 1024
  private readonly lengths = new Float64Array(SpeedHistogram.BINS * limiters.length)
  private readonly fastest = new Float64Array(SpeedHistogram.BINS)
  private total = 0

  add(speed: number, length: number, limiter: number): void {
    const bin = Math.min(SpeedHistogram.BINS - 1, Math.floor(speed / SpeedHistogram.STEP))
    this.lengths[bin * limiters.length + limiter]! += length
    if (speed > this.fastest[bin]!) this.fastest[bin] = speed
    this.total += length
  }

  quantile(share: number): RealSpeed {
    const { lengths, total } = this
    let below = 0
    for (let bin = 0; bin < SpeedHistogram.BINS && total > 0; bin++) {
      let most = 0
      for (let limiter = 0; limiter < limiters.length; limiter++) {
        const length = lengths[bin * limiters.length + limiter]!
        below += length
        if (length > lengths[bin * limiters.length + most]!) most = limiter
      }
      if (below >= share * total * (1 - 1e-9)) return { speedMmS: this.fastest[bin]!, limiter: limiters[most]! }
    }
    return NOWHERE
  }
}
