import type { Evidence } from '../learning/evidence'
import { LADDER_NOISE } from '../learning/flowLine'
import type { Cause } from './spec/cause'
import type { Fault } from './spec/fault'
import type { Scene } from './spec/scene'

/** Faults of which the layers at a height tell that too little came. */
const starved: readonly Fault['id'][] = ['splitBand', 'gaps', 'clicking']
/** How well a limit is known of which only one side was seen, as a logarithm; assumed. */
const ONE_SIDED = 0.25
/** Layers this much below or above the place belong to the band, mm; assumed. */
const BAND_MM = 1.5

/** What a case that was solved says of a constant, and in which words. */
export interface Taught {
  readonly evidence: readonly Evidence[]
  readonly words: string
}

/**
 * A band that starved between layers that are sound: the flow at which it fails is under what was asked in it, and over the most that was asked
 * where it held. Nothing where the layers that held were asked for as much, since then it was not the flow.
 */
export function taughtBy(fault: Fault['id'], cause: Cause['id'], { atZ, settings, prediction }: Scene): Taught | undefined {
  if (cause !== 'flowOver' || atZ === undefined || !starved.includes(fault)) return undefined
  const { tracks, melt } = prediction
  let [failed, held] = [0, 0]
  for (const [layer, z] of tracks.z.entries()) {
    const flow = tracks.melt[layer]! * melt.failsAt
    if (Math.abs(z - atZ) <= BAND_MM) failed = Math.max(failed, flow)
    else held = Math.max(held, flow)
  }
  if (failed <= 0 || held >= failed) return undefined
  const isBracketed = held > failed / 2
  const flow = isBracketed ? Math.sqrt(failed * held) : failed * Math.exp(-ONE_SIDED)
  const noise = isBracketed ? Math.max(LADDER_NOISE, Math.log(failed / held) / 2) : ONE_SIDED
  const temperature = settings.nozzleTemperature
  return {
    evidence: [{ on: 'ladder', temperature, flow, noise }],
    words: `it failed at ${failed.toFixed(1)} mm³/s and held at ${held.toFixed(1)}, at ${temperature} °C: the limit of this reel on this printer is about ${flow.toFixed(1)}`,
  }
}
