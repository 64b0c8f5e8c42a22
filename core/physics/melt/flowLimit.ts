import { median } from 'd3-array'
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
  readonly nozzle: Pick<Nozzle, 'body' | 'length' | 'geometry' | 'bore'>
  readonly material: Material
}

/** How sharply the smaller of two limits binds: at 4, two equal ones let through a sixth less than either. */
const SHARPNESS = 4
/** What a record of a ladder's hot end was measured with: a bore of this size, mm. */
const USUAL_BORE = 0.4

/**
 * Flow at which a hot end fails at a set temperature, mm³/s. Where the user has measured ladder points, a robust line
 * through their logarithms, beyond the hottest of them no steeper than what is assumed. Else the assumed limit of its class,
 * moved with temperature by two limits of which the smaller binds, softly, and is never exceeded: the centre of the plug must
 * reach the low end of the label, and it must be pushed, which gets easier as viscosity falls by Arrhenius and harder through
 * a small bore.
 */
export function flowModel(
  { printer, nozzle, material }: Melter,
  setTemperature: number,
  { melt, cooling: { room } }: MeltConstants,
): FlowModel {
  const base = assumedFlowLimit(printer, material, nozzle, melt) / melt.safeShare
  const assumed = (at: number, bore: number): number => base * assumedShare(material, at + tipOffset(nozzle, melt), bore, melt, room)
  const ladder = material.ladder ?? []
  if (ladder.length === 0) return { failsAt: Math.max(0.1, assumed(setTemperature, nozzle.bore)), basis: 'assumed' }
  const measured = (at: number): number => melt.ladder * throughLadder(ladder, at, melt.ladderSlope)
  const hottest = ladder.reduce((most, { temperature }) => Math.max(most, temperature), 0)
  const beyond = assumed(Math.max(setTemperature, hottest), USUAL_BORE) / assumed(hottest, USUAL_BORE)
  const failsAt = setTemperature <= hottest ? measured(setTemperature) : Math.min(measured(setTemperature), measured(hottest) * beyond)
  return { failsAt: Math.max(0.1, failsAt), basis: 'measured' }
}

/** Flow over that of a brass tip in the middle of the label with a usual bore. */
function assumedShare(material: Material, tip: number, bore: number, melt: MeltConstants['melt'], room: number): number {
  const { activation, belowLabel, heatingReserve, landShare } = melt
  const middle = middleOfLabel(material)
  const heats = (heatingReserve * heatingShare(material, tip, belowLabel, room)) / heatingShare(material, middle, belowLabel, room)
  const thins = Math.exp((activation / GAS) * (1 / (middle + KELVIN) - 1 / (tip + KELVIN)))
  // What is pushed through a tube falls with the fourth power of its width (Hagen & Poiseuille); the land is a part of the way.
  const narrows = 1 / (1 - landShare + landShare * (USUAL_BORE / bore) ** 4)
  return softMin(heats, thins * narrows) / softMin(heatingReserve, 1)
}

const softMin = (a: number, b: number): number => (a ** -SHARPNESS + b ** -SHARPNESS) ** (-1 / SHARPNESS)

const middleOfLabel = ({ nozzleRange: [low, high] }: Pick<Material, 'nozzleRange'>): number => (low + high) / 2

/** Flow that heating alone would let through, up to a constant: 1/Fo for a centre that reaches the low end of the label. */
function heatingShare(material: Material, tip: number, belowLabel: number, room: number): number {
  // Flow stops where the tip is hardly hotter than what the centre must reach.
  const reach = Math.min(material.nozzleRange[0] - belowLabel, tip - 2)
  return 1 / fourierFor((tip - reach) / (tip - room))
}

/**
 * Theil–Sen line (median of slopes) through temperatures and logarithms of flow, since viscosity falls by shares; points of one
 * temperature take the usual slope.
 *
 * @param usualSlope of the logarithm for 10 °C
 */
export function throughLadder(
  points: readonly { readonly temperature: number; readonly flow: number }[],
  temperature: number,
  usualSlope: number,
): number {
  const slopes = points.flatMap((a, i) =>
    points
      .slice(i + 1)
      .flatMap((b) => (a.temperature === b.temperature ? [] : [Math.log(b.flow / a.flow) / (b.temperature - a.temperature)])),
  )
  const slope = slopes.length > 0 ? median(slopes)! : usualSlope / 10
  return Math.exp(median(points.map(({ flow, temperature: at }) => Math.log(flow) + slope * (temperature - at)))!)
}

/** Thermal diffusivity, mm²/s. */
export function diffusivity(material: Material): number {
  const { conductivity, specificHeat } = heatOf(material)
  return (conductivity / (material.density * 1000 * specificHeat)) * 1e6
}
