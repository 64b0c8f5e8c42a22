import { findSupports, type SupportSettings, type Supports } from '../props/findSupports'
import type { Layers } from '../slicing/layers'
import { layerCount } from '../slicing/layers'
import { type CombinedInfill, combineInfill } from './combineInfill'
import type { Contours } from './contours'
import { type FootSettings, layFoot } from './layFoot'
import { layWalls, type WallSettings, type Walls } from './layWalls'
import type { PolygonKernel } from './polygon'
import { type Inside, type SkinSettings, splitInside } from './splitInside'

/** What each layer is made of; every member has one group a layer unless it says otherwise, mm. */
export interface Regions extends Omit<Walls, 'inside'>, Omit<Inside, 'infill'>, CombinedInfill {
  readonly support: Supports
  /** Skirt and brim: closed centre lines on the bed, a single group. */
  readonly foot: Contours
}

export interface RegionSettings extends WallSettings, SkinSettings, SupportSettings, FootSettings {
  readonly infillEvery: number
}

/** Settings that hold on a layer: exceptions by height make them differ. */
export type OnLayer<S> = (layer: number) => S

/**
 * Divides every layer into walls, skins, bridges and infill by comparing it with its neighbours, and builds what stands
 * around it.
 *
 * @param settings of the part as a whole: supports, foot and thick infill know no exceptions
 * @param bore of the nozzle, mm
 */
export function findRegions(
  layers: Layers,
  settings: RegionSettings,
  settingsOn: OnLayer<RegionSettings>,
  bore: number,
  kernel: PolygonKernel,
  onProgress: (done: number, of: number) => void = () => {},
): Regions {
  const count = layerCount(layers)
  const { inside, ...walls } = layWalls(layers.outlines, count, settingsOn, kernel, (done) => onProgress(done, 3 * count))
  const { infill, ...split } = splitInside(layers.outlines, inside, count, settingsOn, kernel, (done) =>
    onProgress(count + done, 3 * count),
  )
  const combined = combineInfill(infill, layers.height, settings.infillEvery, bore, kernel)
  const support = findSupports(layers, split, settings, kernel, (done) => onProgress(2 * count + done, 3 * count))
  const foot = layFoot(layers.outlines, support.body, settings, kernel)
  return { ...walls, ...split, ...combined, support, foot }
}
