import { heatOf } from '../../shelf/heat'
import { type CoolingScene, temperatureAfter } from './layerCooling'

/**
 * How well a layer bonds to the one below, as a share of the bulk strength: the material's own factor, times terms for the
 * nozzle's temperature within the label, for how warm the layer below still is (which falls with fan and layer time), for
 * the melt load, and for missing plastic. Semi-empirical: each term is 1 under the conditions that the factor is told for.
 */

/** Per °C over or under the middle of the label. */
const PER_DEGREE = 0.008
/** The material's factor is told for layers of 0.2 mm that take this long, s, under a full fan. */
const REFERENCE_LAYER_TIME = 20
const REFERENCE_FAN = 1
/** Per share of the way from softening to nozzle temperature that the layer below is warmer than in the reference. */
const PER_WARMTH = 0.6
/** Per unit of melt load over that of an easy print: what comes fast comes less hot to its core. */
const PER_LOAD = 0.25
const REFERENCE_LOAD = 0.3
const [LEAST, MOST] = [0.05, 1] as const

export interface BondScene extends CoolingScene {
  /** 0–1 */
  readonly fan: number
}

/**
 * Bond of one interface, 0–1.
 *
 * @param height of the layer below, mm
 * @param seconds that it had to cool
 * @param missing share of the plastic that is missing in this layer
 * @param load mean melt load of this layer
 */
export function bondFactor(scene: BondScene, height: number, seconds: number, missing: number, load = REFERENCE_LOAD): number {
  const { material, nozzleTemperature, fan } = scene
  const [low, high] = material.nozzleRange
  const middle = (low + high) / 2
  const byTemperature = 1 + PER_DEGREE * (nozzleTemperature - middle)
  const reference = { ...scene, nozzleTemperature: middle }
  const warmer = warmth(scene, height, fan, seconds) - warmth(reference, 0.2, REFERENCE_FAN, REFERENCE_LAYER_TIME)
  const byLoad = 1 - PER_LOAD * (load - REFERENCE_LOAD)
  const bond = material.strength.bondFactor * byTemperature * (1 + PER_WARMTH * warmer) * byLoad * (1 - missing)
  return Math.min(MOST, Math.max(LEAST, bond))
}

/** Where the layer below stands between softening (0) and the nozzle's temperature (1) when it is laid on. */
function warmth(scene: CoolingScene, height: number, fan: number, seconds: number): number {
  const { softening } = heatOf(scene.material)
  const left = (temperatureAfter(scene, height, fan, seconds) - softening) / (scene.nozzleTemperature - softening)
  return Math.max(0, left)
}
