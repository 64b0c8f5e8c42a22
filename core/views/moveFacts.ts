import { type Limiter, limiterReasons, limiters } from '../motion/limiters'
import type { Motion } from '../motion/planMotion'
import type { MoveTracks } from '../physics/physicsFigures'
import { marked } from '../profile/overrides'
import { type Feature, features, isLaid, type Toolpath } from '../toolpath/toolpath'

/** Everything that is known of one move. Units are in the names. */
export interface MoveFacts {
  readonly move: number
  /** Counted from 0. */
  readonly layer: number
  readonly feature: Feature
  readonly from: readonly [x: number, y: number, z: number]
  readonly to: readonly [x: number, y: number, z: number]
  readonly lengthMm: number
  readonly widthMm: number
  readonly areaMm2: number
  /** Share of the line that has nothing under it, 0–1. */
  readonly overAir: number
  /** Names of the overrides in force. */
  readonly overrides: readonly string[]
  /** What a program asks for, once flow, layer time and the like have had their say. */
  readonly askedMmS: number
  readonly peakMmS: number
  readonly meanMmS: number
  readonly durationS: number
  /** At the highest speed. */
  readonly flowMm3S: number
  /** That flow, evened out over what is molten already, over the flow at which the hot end fails. */
  readonly meltLoad?: number
  /** 0 matte to 1 glossy, of the outer wall. */
  readonly gloss?: number
  readonly limiter: Limiter
  readonly why: string
}

/** The numbers and the reason of one move; `overrideNames` in the order of their list. */
export function factsOf(
  path: Toolpath,
  motion: Motion,
  move: number,
  overrideNames: readonly string[] = [],
  tracks?: MoveTracks,
): MoveFacts {
  const { x, y, z, feature, area, width, air, scope, layerStart } = path
  const peak = motion.peak[move]!
  const duration = motion.duration[move]!
  const limiter = limiters[motion.limiter[move]!]!
  const kind = feature[move]!
  const length = Math.hypot(x[move + 1]! - x[move]!, y[move + 1]! - y[move]!, z[move + 1]! - z[move]!)
  return {
    move,
    layer: layerOf(layerStart, move),
    feature: features[kind]!,
    from: [x[move]!, y[move]!, z[move]!],
    to: [x[move + 1]!, y[move + 1]!, z[move + 1]!],
    lengthMm: length,
    widthMm: isLaid(kind) ? width[move]! : 0,
    areaMm2: area[move]!,
    overAir: air[move]! / 255,
    overrides: [...new Set(path.sets[scope[move]!]!.flatMap((mark) => overrideNames[marked(mark).override] ?? []))],
    askedMmS: motion.asked[move]!,
    peakMmS: peak,
    meanMmS: duration > 0 ? length / duration : 0,
    durationS: duration,
    flowMm3S: area[move]! * peak,
    ...(tracks && isLaid(kind) ? { meltLoad: tracks.meltLoad[move]! } : {}),
    ...(tracks && !Number.isNaN(tracks.gloss[move]!) ? { gloss: tracks.gloss[move]! } : {}),
    limiter,
    why: limiterReasons[limiter],
  }
}

/** Layer of a move, by halving. */
function layerOf(layerStart: Uint32Array, move: number): number {
  let low = 0
  let high = layerStart.length - 1
  while (high - low > 1) {
    const middle = (low + high) >>> 1
    if (layerStart[middle]! <= move) low = middle
    else high = middle
  }
  return low
}
