import type { Prediction } from '../../pipeline/predict'
import { type Override, Scopes } from '../../profile/overrides'
import type { Settings } from '../../profile/settings'
import type { Setup } from '../../setup/resolve'

/** A print that failed, as clues read it: the candidate, everything foretold for it, and where the fault was seen. */
export interface Scene {
  readonly setup: Setup
  readonly prediction: Prediction
  /** Settings at the place, overrides included. */
  readonly settings: Settings
  /** Height at which it was seen, mm; absent where it is all over, or nobody said. */
  readonly atZ?: number | undefined
}

/** The scene of a fault. @param atZ height at which it was seen, mm; overrides that hold there are minded */
export function sceneOf(setup: Setup, prediction: Prediction, overrides: readonly Override[], atZ?: number): Scene {
  const scopes = new Scopes(prediction.settings, overrides)
  const settings = atZ === undefined ? prediction.settings : scopes.settingsOf(scopes.ofLayer(atZ))
  return { setup, prediction, settings, ...(atZ === undefined ? {} : { atZ }) }
}

/** What is foretold of one layer; see `LayerTracks`. */
export interface Local {
  readonly zMm: number
  readonly timeS: number
  /** Flow over failing flow. */
  readonly melt: number
  /** Layer time over the time needed. */
  readonly cooling: number
  readonly bond: number
  readonly overAirMm: number
  readonly swayMm: number
}

/** The layer at the height that was told, else the worst of them all by what is asked for. */
export function localOf({ prediction: { tracks }, atZ }: Scene, worst: keyof Omit<Local, 'zMm'>): Local {
  const { z } = tracks
  const values = tracks[worst]
  // Little melt load and much of everything that holds are good.
  const sign = worst === 'melt' || worst === 'overAirMm' || worst === 'swayMm' ? 1 : -1
  let layer = 0
  for (let i = 1; i < z.length; i++) {
    const isNearer =
      atZ === undefined
        ? Number.isFinite(values[i]!) && !(sign * values[layer]! >= sign * values[i]!)
        : Math.abs(z[i]! - atZ) < Math.abs(z[layer]! - atZ)
    if (isNearer) layer = i
  }
  return {
    zMm: z[layer]!,
    timeS: tracks.timeS[layer]!,
    melt: tracks.melt[layer]!,
    cooling: tracks.cooling[layer]!,
    bond: tracks.bond[layer]!,
    overAirMm: tracks.overAirMm[layer]!,
    swayMm: tracks.swayMm[layer]!,
  }
}

/** "at 12.4 mm", or "at worst, at 12.4 mm" where no height was told. */
export const whereOf = ({ atZ }: Pick<Scene, 'atZ'>, { zMm }: Pick<Local, 'zMm'>): string =>
  `${atZ === undefined ? 'at worst, ' : ''}at ${zMm.toFixed(1)} mm`
