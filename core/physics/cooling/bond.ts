import type { Constants } from '../../constants/constants'
import { heatOf } from '../../shelf/heat'
import { type CoolingScene, temperatureAfter } from './layerCooling'

/**
 * How well a layer bonds to the one below, as a share of the bulk strength: the material's own factor, times terms for the
 * nozzle's temperature within the label, for how warm the layer below still is (which falls with fan and layer time), for
 * the melt load, and for missing plastic. Semi-empirical: each term is 1 under the conditions that the factor is told for.
 */

/** The material's factor is told for layers of so many mm under a full fan. */
const REFERENCE_HEIGHT = 0.2
const REFERENCE_FAN = 1
/** A layer is never stronger than the bulk. */
const MOST = 1

export interface BondScene extends CoolingScene {
  /** 0–1 */
  readonly fan: number
  readonly bonding: Constants['bond']
}

/**
 * Bond of one interface, 0–1.
 *
 * @param height of the layer below, mm
 * @param seconds that it had to cool
 * @param missing share of the plastic that is missing in this layer
 * @param load mean melt load of this layer
 */
export function bondFactor(scene: BondScene, height: number, seconds: number, missing: number, load: number): number {
  const { material, nozzleTemperature, fan, bonding } = scene
  const { perDegree, layerTime, perWarmth, perLoad, easyLoad, least } = bonding
  const [low, high] = material.nozzleRange
  const middle = (low + high) / 2
  const byTemperature = 1 + perDegree * (nozzleTemperature - middle)
  const reference = { ...scene, nozzleTemperature: middle }
  const warmer = warmth(scene, height, fan, seconds) - warmth(reference, REFERENCE_HEIGHT, REFERENCE_FAN, layerTime)
  const byLoad = 1 - perLoad * (load - easyLoad)
  const bond = material.strength.bondFactor * byTemperature * (1 + perWarmth * warmer) * byLoad * (1 - missing)
  return Math.min(MOST, Math.max(least, bond))
}

/** Where the layer below stands between softening (0) and the nozzle's temperature (1) when it is laid on. */
function warmth(scene: CoolingScene, height: number, fan: number, seconds: number): number {
  const { softening } = heatOf(scene.material)
  const left = (temperatureAfter(scene, height, fan, seconds) - softening) / (scene.nozzleTemperature - softening)
  return Math.max(0, left)
}
