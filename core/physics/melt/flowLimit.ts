import type { Constants } from '../../constants/constants'
import { heatOf } from '../../shelf/heat'
import type { Basis, Material } from '../../shelf/material'
import type { Nozzle } from '../../shelf/nozzle'
import type { Printer } from '../../shelf/printer'
import { fourierFor } from './heating'

/** Flow limit, mm³/s, to assume until one is measured: hot-end class × nozzle × material. Basis: assumed. */
export function assumedFlowLimit(
  printer: Pick<Printer, 'hotEnd'>,
  material: Pick<Material, 'flowFactor'>,
  { length, geometry }: Pick<Nozzle, 'length' | 'geometry'>,
  { flowShort, flowLong, flowExtraLong, longer, split }: Constants['melt'],
): number {
  const byNozzle = (length === 'long' ? longer : 1) * (geometry === 'split' ? split : 1)
  const byClass = { short: flowShort, long: flowLong, extraLong: flowExtraLong }[printer.hotEnd.class]
  return Math.round(byClass * byNozzle * material.flowFactor * 10) / 10
}

/** How much hotter or colder than brass a nozzle's tip works at the same set temperature, °C. */
export const tipOffset = (
  { body = 'brass' }: Pick<Nozzle, 'body'>,
  { hardenedSteel, tungstenCarbide, platedCopper, diamondTip }: Constants['melt'],
): number => ({ brass: 0, hardenedSteel, tungstenCarbide, platedCopper, diamondTip })[body]

/** The gas constant, J/(mol·K). */
const GAS = 8.314
const KELVIN = 273.15

export interface FlowModel {
  /** Flow at which extrusion begins to fail, mm³/s. */
  readonly failsAt: number
  readonly basis: Basis
}

/** What melting rests on. */
export type MeltConstants = Pick<Constants, 'melt' | 'cooling'>

type Melter = {
  readonly printer: Pick<Printer, 'hotEnd'>
  readonly nozzle: Pick<Nozzle, 'body' | 'length' | 'geometry'>
  readonly material: Material
}

/**
 * Flow at which a hot end fails at a set temperature, mm³/s. Where the user has measured ladder points, a robust line
 * through them; else the assumed limit of its class, moved with temperature by two limits of which the smaller binds,
 * softly: the centre of the plug must reach the low end of the label, and it must be pushed, which gets easier as viscosity
 * falls by Arrhenius.
 */
export function flowModel(
  { printer, nozzle, material }: Melter,
  setTemperature: number,
  { melt, cooling: { room } }: MeltConstants,
): FlowModel {
  const ladder = material.ladder ?? []
  if (ladder.length > 0) return { failsAt: Math.max(0.1, melt.ladder * throughLadder(ladder, setTemperature)), basis: 'measured' }
  const base = assumedFlowLimit(printer, material, nozzle, melt) / melt.safeShare
  const middle = middleOfLabel(material)
  const tip = setTemperature + tipOffset(nozzle, melt)
  const share = (at: number): number => heatingShare(material, at, melt.belowLabel, room)
  const heating = share(tip) / share(middle)
  const pushing = Math.exp((melt.activation / GAS) * (1 / (middle + KELVIN) - 1 / (tip + KELVIN)))
  return { failsAt: Math.max(0.1, (2 * base) / (1 / heating + 1 / pushing)), basis: 'assumed' }
}

const middleOfLabel = ({ nozzleRange: [low, high] }: Pick<Material, 'nozzleRange'>): number => (low + high) / 2

/** Flow that heating alone would let through, up to a constant: 1/Fo for a centre that reaches the low end of the label. */
function heatingShare(material: Material, tip: number, belowLabel: number, room: number): number {
  // Flow stops where the tip is hardly hotter than what the centre must reach.
  const reach = Math.min(material.nozzleRange[0] - belowLabel, tip - 2)
  return 1 / fourierFor((tip - reach) / (tip - room))
}

/** Theil–Sen line (median of slopes) through points of temperature and flow; with one point its flow at any temperature. */
export function throughLadder(points: readonly { readonly temperature: number; readonly flow: number }[], temperature: number): number {
  const slopes = points.flatMap((a, i) =>
    points.slice(i + 1).flatMap((b) => (a.temperature === b.temperature ? [] : [(b.flow - a.flow) / (b.temperature - a.temperature)])),
  )
  const slope = slopes.length > 0 ? median(slopes) : 0
  return median(points.map(({ flow, temperature: at }) => flow + slope * (temperature - at)))
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}

/** Thermal diffusivity, mm²/s. */
export function diffusivity(material: Material): number {
  const { conductivity, specificHeat } = heatOf(material)
  return (conductivity / (material.density * 1000 * specificHeat)) * 1e6
}
