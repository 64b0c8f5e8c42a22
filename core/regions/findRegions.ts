import type { Scopes } from '../profile/exceptions'
import { findSupports } from '../props/findSupports'
import type { Supports } from '../props/supports'
import type { Layers } from '../slicing/layers'
import { layerCount } from '../slicing/layers'
import { type CombinedInfill, combineInfill } from './combineInfill'
import type { Contours } from './contours'
import { layFoot } from './layFoot'
import { layWalls, type Walls } from './layWalls'
import type { PolygonKernel } from './polygon'
import { type Inside, splitInside } from './splitInside'

/** What each layer is made of; every member has one group a layer unless it says otherwise, mm. */
export interface Regions extends Omit<Walls, 'inside'>, Omit<Inside, 'infill'>, CombinedInfill {
  readonly support: Supports
  /** Skirt and brim: closed centre lines on the bed, a single group. */
  readonly foot: Contours
}

/**
 * Divides every layer into walls, skins, bridges and infill by comparing it with its neighbours, and builds what stands
 * around it. Supports, foot and thick infill are those of the part as a whole and know no exceptions.
 *
 * @param bore of the nozzle, mm
 */
export function findRegions(
  layers: Layers,
  scopes: Scopes,
  bore: number,
  kernel: PolygonKernel,
  onProgress: (done: number, of: number) => void = () => {},
): Regions {
  const count = layerCount(layers)
  const { settings } = scopes
  const { inside, ...walls } = layWalls(layers, scopes, kernel, (done) => onProgress(done, 3 * count))
  const { infill, ...split } = splitInside(layers, inside, scopes, kernel, (done) => onProgress(count + done, 3 * count))
  const combined = combineInfill(infill, layers.height, settings.infillEvery, bore, kernel)
  const support = findSupports(layers, split, settings, kernel, (done) => onProgress(2 * count + done, 3 * count))
  const foot = layFoot(layers.outlines, support.body, settings, kernel)
  return { ...walls, ...split, ...combined, support, foot }
}
