import type { Constants } from '../../constants/constants'
import type { Motion } from '../../motion/planMotion'
import { code, isLaid, type Toolpath } from '../../toolpath/toolpath'

/** 1 − e^−x; for short moves, which are nearly all, by its Padé approximant, right to a millionth and much quicker. */
const eased = (x: number): number => (x < 0.2 ? x / (1 + x / 2 + (x * x) / 12) : 1 - Math.exp(-x))

/** The load about which plastic begins to be missing reaches so far to both sides: nothing fails at once everywhere. */
const KNEE = 0.08

/** Share of the plastic that is missing at a melt load (flow over failing flow): none, then bending into a line. Semi-empirical. */
export function shortfall(load: number, { safeShare, missingPerLoad, mostMissing }: Constants['melt']): number {
  const over = load - safeShare
  if (over <= -KNEE) return 0
  const missing = over >= KNEE ? over : (over + KNEE) ** 2 / (4 * KNEE)
  return Math.min(mostMissing, missing * missingPerLoad)
}

/** How hard melting works, layer by layer. */
export interface MeltLoads {
  /** Failing flow of each layer, mm³/s. */
  readonly failsAt: Float64Array
  /** Highest load of each layer, flow over failing flow. */
  readonly highest: Float64Array
  /** Mean flow of each layer, travels included, over the failing flow. */
  readonly mean: Float64Array
  /** Share of the plastic that is missing in each layer. */
  readonly missing: Float64Array
  /** Load under which nineteen twentieths of the plastic are laid. */
  readonly load95: number
}

/**
 * Melt load of every layer. The failing flow falls where a layer asks for much flow without a break, since the heater sags,
 * and is higher near a warm bed.
 *
 * @param failsAtC failing flow at a nozzle temperature, mm³/s
 * @param heatOf of a layer: set temperature of the nozzle, and how much warmer the bed is than the room, °C
 * @param zOf height of a layer, mm
 * @param loadOfMove takes the load of every laid move
 */
export function meltLoads(
  path: Toolpath,
  motion: Motion,
  heatOf: (layer: number) => { readonly nozzle: number; readonly bedAboveRoom: number },
  failsAtC: (celsius: number) => number,
  zOf: (layer: number) => number,
  melt: Constants['melt'],
  loadOfMove?: Float32Array,
): MeltLoads {
  const { bedWarmth, warmHeight, sag } = melt
  const layers = path.layerStart.length - 1
  const failsAt = new Float64Array(layers)
  const highest = new Float64Array(layers)
  const mean = new Float64Array(layers)
  const missing = new Float64Array(layers)
  const melting = new Melting(melt)
  let setting = Number.NaN
  let atSetting = 0
  let perDegree = 0
  for (let layer = 0; layer < layers; layer++) {
    const { nozzle, bedAboveRoom } = heatOf(layer)
    if (nozzle !== setting) {
      setting = nozzle
      atSetting = failsAtC(nozzle)
      // The curve is smooth: a line between two of its points is near enough and saves the series per layer.
      perDegree = (failsAtC(nozzle + 5) - failsAtC(nozzle - 5)) / 10
    }
    const volume = volumeOfLayer(path, layer)
    const share = motion.layerTime[layer]! > 0 ? volume / motion.layerTime[layer]! / atSetting : 0
    const warmth = ((bedWarmth * Math.max(0, bedAboveRoom)) / 35) * Math.exp(-zOf(layer) / warmHeight)
    const own = Math.max(0.1, atSetting + perDegree * (warmth - sag * share * share))
    failsAt[layer] = own
    mean[layer] = (share * atSetting) / own
    melting.layer(path, motion, layer, own, loadOfMove)
    highest[layer] = melting.highest
    missing[layer] = volume > 0 ? melting.short / volume : 0
  }
  return { failsAt, highest, mean, missing, load95: quantile(melting.byLoad, 0.95) * (MOST_LOAD / LOAD_BINS) }
}

function volumeOfLayer({ area, x, y, layerStart }: Toolpath, layer: number): number {
  let volume = 0
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    const dx = x[m + 1]! - x[m]!
    const dy = y[m + 1]! - y[m]!
    if (area[m]! > 0) volume += area[m]! * Math.sqrt(dx * dx + dy * dy)
  }
  return volume
}

/** What is being molten, from move to move. Layer by layer, so that the compiler meets a small loop often. */
class Melting {
  /** Plastic by the load under which it is laid, mm³. */
  readonly byLoad = new Float64Array(LOAD_BINS)
  /** Of the last layer: its highest load, and the plastic that is missing, mm³. */
  highest = 0
  short = 0
  /** Evened out, mm³/s. */
  private flow = 0

  constructor(private readonly melt: Constants['melt']) {}

  layer(
    { area, feature, x, y, layerStart }: Toolpath,
    { duration }: Motion,
    layer: number,
    failsAt: number,
    loadOfMove?: Float32Array,
  ): void {
    const { byLoad, melt } = this
    const { reserveTime, safeShare } = melt
    let { flow } = this
    let highest = 0
    let short = 0
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const seconds = duration[m]!
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      const laid = area[m]! * Math.sqrt(dx * dx + dy * dy)
      if (seconds > 0) flow += (laid / seconds - flow) * eased(seconds / reserveTime)
      const kind = feature[m]!
      if (!isLaid(kind) || kind === code.ironing) continue
      const load = flow / failsAt
      if (loadOfMove) loadOfMove[m] = load
      if (load > highest) highest = load
      if (load > safeShare - KNEE) short += laid * shortfall(load, melt)
      byLoad[load >= MOST_LOAD ? LOAD_BINS - 1 : Math.floor((load / MOST_LOAD) * LOAD_BINS)]! += laid
    }
    this.flow = flow
    this.highest = highest
    this.short = short
  }
}

const LOAD_BINS = 400
const MOST_LOAD = 4

function quantile(bins: Float64Array, share: number): number {
  const wanted = share * bins.reduce((sum, value) => sum + value, 0)
  let sum = 0
  for (let i = 0; i < bins.length; i++) {
    sum += bins[i]!
    if (sum >= wanted) return i + 1
  }
  return bins.length
}
