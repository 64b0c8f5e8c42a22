import { heatOf, ROOM } from '../../shelf/heat'
import type { Basis, Material } from '../../shelf/material'
import type { Nozzle } from '../../shelf/nozzle'
import type { Printer } from '../../shelf/printer'
import { fourierFor } from './heating'

/**
 * Flow that a hot end sustains with plain PLA at the middle of its label, mm³/s, by the length of its melt zone. Common
 * practice, no source: ordinary hot ends run out at 10–15, long ones with fast filament reach 25–30.
 */
const CLASS_FLOW: Readonly<Record<Printer['hotEnd']['class'], number>> = { short: 11, long: 19, extraLong: 28 }

/** Of the flow at which a hot end fails, this share is safe to ask for; common practice. */
export const SAFE_SHARE = 0.85

/** A longer nozzle, or one that splits the filament, heats more of it at once (CP-N7); by how much is assumed. */
const LONGER = 1.25
const SPLIT = 1.3

/** Flow limit, mm³/s, to assume until one is measured: hot-end class × nozzle × material. Basis: assumed. */
export function assumedFlowLimit(
  printer: Pick<Printer, 'hotEnd'>,
  material: Pick<Material, 'flowFactor'>,
  { length, geometry }: Pick<Nozzle, 'length' | 'geometry'> = {},
): number {
  const byNozzle = (length === 'long' ? LONGER : 1) * (geometry === 'split' ? SPLIT : 1)
  return Math.round(CLASS_FLOW[printer.hotEnd.class] * byNozzle * material.flowFactor * 10) / 10
}

/**
 * How much hotter or colder than brass a nozzle's tip works at the same set temperature, °C. Common practice: hardened steel
 * wants 5–20 °C more, tungsten carbide is about brass, plated copper and diamond run hotter for the same setting.
 */
const TIP_OFFSET: Readonly<Record<NonNullable<Nozzle['body']>, number>> = {
  brass: 0,
  hardenedSteel: -10,
  tungstenCarbide: 0,
  platedCopper: 5,
  diamondTip: 5,
}

export const tipOffset = ({ body = 'brass' }: Pick<Nozzle, 'body'>): number => TIP_OFFSET[body]

/** Activation energy of viscosity, J/mol (PLA 80–100 kJ/mol, from memory), and the gas constant. */
const ACTIVATION = 90_000
const GAS = 8.314
const KELVIN = 273.15

export interface FlowModel {
  /** Flow at which extrusion begins to fail, mm³/s. */
  readonly failsAt: number
  readonly basis: Basis
}

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
export function flowModel({ printer, nozzle, material }: Melter, setTemperature: number): FlowModel {
  const ladder = material.ladder ?? []
  if (ladder.length > 0) return { failsAt: Math.max(0.1, throughLadder(ladder, setTemperature)), basis: 'measured' }
  const base = assumedFlowLimit(printer, material, nozzle) / SAFE_SHARE
  const middle = middleOfLabel(material)
  const tip = setTemperature + tipOffset(nozzle)
  const heating = heatingShare(material, tip) / heatingShare(material, middle)
  const pushing = Math.exp((ACTIVATION / GAS) * (1 / (middle + KELVIN) - 1 / (tip + KELVIN)))
  return { failsAt: Math.max(0.1, (2 * base) / (1 / heating + 1 / pushing)), basis: 'assumed' }
}

const middleOfLabel = ({ nozzleRange: [low, high] }: Pick<Material, 'nozzleRange'>): number => (low + high) / 2

/** Flow that heating alone would let through, up to a constant: 1/Fo for a centre that reaches the low end of the label. */
function heatingShare(material: Material, tip: number): number {
  // Flow stops where the tip is hardly hotter than what the centre must reach.
  const reach = Math.min(material.nozzleRange[0] - NEEDED_BELOW_LABEL, tip - 2)
  return 1 / fourierFor((tip - reach) / (tip - ROOM))
}

/** The centre flows well enough when it is this far below the low end of the label, °C; semi-empirical. */
const NEEDED_BELOW_LABEL = 25

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
