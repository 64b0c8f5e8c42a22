import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { moveTracks } from '../physics/physicsFigures'
import { layDown, type PredictOptions, planFor } from '../pipeline/layDown'
import { StageCache } from '../pipeline/stageCache'
import { Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'

/**
 * Every move of a candidate with what can be shown of it, flat and small, to be handed between threads and drawn.
 *
 * ```
 * x, y, z      position of each point, mm (moves + 1 entries)
 * feature      code of each move (`features`)
 * limiter      code of what holds it (`limiters`)
 * air          share of it with nothing under it, 0–255
 * width, area  of the line, mm and mm²; 0 where nothing is laid
 * asked, peak  speeds, mm/s
 * meltLoad     flow over failing flow; 0 where nothing is laid
 * gloss        0–1; not a number but on the outer wall
 * start        when each move begins, s from the first one of its layer
 * duration     s
 * layerStart   layer → its first move; one more entry than layers
 * layerTime    s
 * layerTop     height at which each layer is laid, mm
 * ```
 */
export interface DrawnMoves {
  readonly x: Float32Array
  readonly y: Float32Array
  readonly z: Float32Array
  readonly feature: Uint8Array
  readonly limiter: Uint8Array
  readonly air: Uint8Array
  readonly width: Float32Array
  readonly area: Float32Array
  readonly asked: Float32Array
  readonly peak: Float32Array
  readonly meltLoad: Float32Array
  readonly gloss: Float32Array
  readonly start: Float32Array
  readonly duration: Float32Array
  readonly layerStart: Uint32Array
  readonly layerTime: Float64Array
  readonly layerTop: Float64Array
}

/**
 * Moves of all copies of a candidate, in the order of the path. What a prediction before it has computed is taken from the cache.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function drawnMoves(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): DrawnMoves {
  const shared = { ...options, cache: options.cache ?? new StageCache() }
  const laid = layDown(part, placement, setup, values, shared)
  const { path, layers, resolved } = laid
  const motion = planFor(laid, setup, shared)
  const tracks = moveTracks({
    layers,
    path,
    motion,
    scopes: new Scopes(resolved.settings, options.overrides, path.sets),
    setup: knownSetup(setup),
  })
  const count = layers.top.length
  return {
    x: Float32Array.from(path.x),
    y: Float32Array.from(path.y),
    z: Float32Array.from(path.z),
    feature: path.feature.slice(),
    limiter: motion.limiter.slice(),
    air: path.air.slice(),
    width: path.width.slice(),
    area: path.area.slice(),
    asked: motion.asked.slice(),
    peak: motion.peak.slice(),
    meltLoad: tracks.meltLoad,
    gloss: tracks.gloss,
    start: startsOf(motion.duration, path.layerStart),
    duration: motion.duration.slice(),
    layerStart: path.layerStart.slice(),
    layerTime: motion.layerTime.slice(),
    // Copies printed one after another repeat the layers of the part.
    layerTop: Float64Array.from({ length: path.layerStart.length - 1 }, (_, layer) => layers.top[layer % count]!),
  }
}

function startsOf(duration: Float32Array, layerStart: Uint32Array): Float32Array {
  const start = new Float32Array(duration.length)
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    let at = 0
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      start[m] = at
      at += duration[m]!
    }
  }
  return start
}
