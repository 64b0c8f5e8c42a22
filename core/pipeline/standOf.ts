import type { LayerTracks } from '../physics/physicsFigures'
import type { SupportPush, SupportSwayFigures } from '../physics/sway/supportSway'
import {
  type Drawn,
  type LayerSection,
  type Standing,
  type SwayFigures,
  sideForce,
  swayByLayer,
  swayFigures,
  swayOf,
} from '../physics/sway/sway'
import { outerBrim } from '../profile/outerBrim'
import type { Settings } from '../profile/settings'
import type { KnownSetup } from '../setup/knownSetup'

interface StandInput {
  readonly settings: Settings
  readonly setup: KnownSetup
  readonly upright: readonly LayerSection[]
  readonly tracks: LayerTracks
  /** At which supports are really laid, mm/s; 0 where there are none. */
  readonly supportSpeed: number
  readonly swayOfSupports: (share: (radius: number) => number, push: SupportPush) => SupportSwayFigures
}

/** How a part and its supports stand under the nozzle. */
export function standOf({ settings, setup, upright, tracks, supportSpeed, swayOfSupports }: StandInput): {
  readonly sway: SwayFigures
  readonly supportSway: SupportSwayFigures
  readonly swayMm: Float64Array
} {
  const { sway } = setup.constants
  const standing = standingOf(settings, setup)
  const given = swayOf(upright, drawnLayers(upright, tracks), standing, sway)
  const push: SupportPush = {
    modulus: standing.modulus,
    force: sideForce(supportSpeed > 0 ? Math.min(supportSpeed, settings.supportSpeed) : settings.supportSpeed, standing, sway),
    brim: settings.supportBrim === 'none' ? 0 : settings.brimWidth,
    adhesion: sway.adhesion,
  }
  return {
    sway: swayFigures(upright, given, standing, sway),
    supportSway: swayOfSupports((radius) => supportStiffness(settings, radius), push),
    swayMm: swayByLayer(upright, tracks.z, given),
  }
}

/** How stiff a support so wide is against a full round one: a branch has a rim, whose second moment over that is 4·w/r; inside and elsewhere they are as stiff as they are dense. */
const supportStiffness = ({ supports, lineWidth, supportDensity }: Settings, radius: number): number =>
  Math.min(1, (supports === 'branching' ? (4 * lineWidth) / radius : 0) + supportDensity / 100)

const standingOf = (settings: Settings, { material, printer }: Pick<KnownSetup, 'material' | 'printer'>): Standing => ({
  modulus: material.strength.modulus,
  density: material.density,
  lineWidth: settings.lineWidth,
  // A wall without end has no ways on which the nozzle could knock against it.
  lift: settings.spiralWall === 'on' ? 'always' : settings.lift,
  together: settings.copyOrder === 'together' ? settings.copies : 1,
  brim: outerBrim(settings),
  printer,
  acceleration: settings.acceleration,
})

/** How each layer that stands is drawn: sections leave out layers in which nothing of the part is laid. */
function drawnLayers(upright: readonly LayerSection[], { z, timeS, cooling }: LayerTracks): (section: number) => Drawn {
  const layerAt = new Map(Array.from(z, (top, layer) => [top.toFixed(4), layer]))
  return (section) => {
    const layer = layerAt.get(upright[section]!.z.toFixed(4))
    return layer === undefined ? { timeS: 0, margin: Infinity } : { timeS: timeS[layer]!, margin: cooling[layer]! }
  }
}
