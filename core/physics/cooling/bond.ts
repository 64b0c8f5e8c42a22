import type { Constants } from '../../constants/constants'
import { heatOf } from '../../shelf/heat'
import type { Printer } from '../../shelf/printer'
import { airTemperature, type CoolingScene, temperatureAfter, timeConstant } from './layerCooling'

/**
 * How well a layer bonds to the one below, as a share of the bulk strength: the material's own factor, times how far the
 * interface heals against the conditions for which that factor is told, times terms for the melt load and for missing plastic.
 *
 * Where two faces meet they are at the mean of both temperatures, and while they stay above softening chains creep from one into
 * the other: strength grows with the fourth root of the time (reptation, Wool & O'Connor 1981, from memory), counted faster the
 * hotter it is (Arrhenius). Level and shares are semi-empirical.
 */

/** The material's factor is told for layers of so many mm in a room, under the fan that is usual for it. */
const REFERENCE_HEIGHT = 0.2
/** Power of the healing time, from theory. */
const REPTATION = 0.25
/** A layer is never as strong as the bulk, and nears it by this power. */
const [MOST, BEND] = [0.999, 4] as const
const GAS = 8.314
const KELVIN = 273.15
/** Steps of Simpson's rule over the temperatures of the interface. */
const STEPS = 8

export interface BondScene extends CoolingScene {
  readonly printer: Pick<Printer, 'cooling' | 'enclosed'>
  /** 0–1 */
  readonly fan: number
  readonly bonding: Constants['bond']
}

/** The layer below, when the next is laid on it. */
export interface LayerBelow {
  /** mm */
  readonly height: number
  /** That it had to cool. */
  readonly seconds: number
  /** By how much the bed keeps it warmer than the air, °C. */
  readonly bedWarmth: number
}

/**
 * Bond of one interface, 0–1.
 *
 * @param missing share of the plastic that is missing in this layer
 * @param load mean melt load of this layer
 */
export function bondFactor(scene: BondScene, below: LayerBelow, missing: number, load: number): number {
  const { material, bonding } = scene
  const { layerTime, perLoad, easyLoad, least } = bonding
  const [low, high] = material.nozzleRange
  const reference: BondScene = {
    ...scene,
    printer: { ...scene.printer, enclosed: false },
    nozzleTemperature: (low + high) / 2,
    fan: (material.defaults.fanSpeed ?? 100) / 100,
  }
  const usual = healing(reference, { height: REFERENCE_HEIGHT, seconds: layerTime, bedWarmth: 0 })
  const healed = (healing(scene, below) / usual) ** REPTATION
  const byLoad = Math.max(0, 1 - perLoad * (load - easyLoad))
  return Math.max(least, towardsBulk(material.strength.bondFactor, healed * byLoad) * (1 - missing))
}

/** A bond so many times as good: it nears the bulk and never reaches it. */
function towardsBulk(factor: number, times: number): number {
  const free = Math.min(MOST, factor)
  const better = (free / (1 - free ** BEND) ** (1 / BEND)) * times
  return better / (1 + better ** BEND) ** (1 / BEND)
}

/** Time that an interface stays above softening, s, weighed by how fast chains creep at each temperature. */
function healing(scene: BondScene, { height, seconds, bedWarmth }: LayerBelow): number {
  const { fan, nozzleTemperature, bonding } = scene
  const { softening } = heatOf(scene.material)
  const air = airTemperature(scene) + bedWarmth
  const contact = (nozzleTemperature + Math.max(air, temperatureAfter(scene, height, fan, seconds))) / 2
  if (contact <= softening || softening <= air) return 0
  const speed = (celsius: number): number =>
    Math.exp((bonding.diffusion / GAS) * (1 / (REFERENCE + KELVIN) - 1 / (celsius + KELVIN))) / (celsius - air)
  const step = (contact - softening) / STEPS
  let sum = 0
  for (let i = 0; i <= STEPS; i++) sum += speed(softening + i * step) * (i === 0 || i === STEPS ? 1 : i % 2 === 1 ? 4 : 2)
  // What lies below draws heat out of the interface beside the air above it.
  const tau = timeConstant(scene, height, fan, bonding.conducts)
  return (tau * sum * step) / 3
}

/** Any temperature: only ratios of healing count. */
const REFERENCE = 120
