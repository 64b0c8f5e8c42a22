import type { Constants } from '../constants/constants'
import { groupArea } from '../geometry/contours'
import type { Motion } from '../motion/planMotion'
import { heatOn } from '../profile/heatOn'
import type { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { KnownSetup } from '../setup/knownSetup'
import { waterTaken } from '../shelf/spool'
import { type Layers, layerCount } from '../slicing/layers'
import { scopeOn } from '../slicing/zones'
import { code, type Toolpath } from '../toolpath/toolpath'
import { bondFactor } from './cooling/bond'
import { fanShare } from './cooling/fan'
import { airTemperature, type CoolingFigures, coolingFigures, marginOf } from './cooling/layerCooling'
import { dullsAt, type GlossFigures, GlossSums, glossAt } from './finish/gloss'
import { type FlowModel, flowModel } from './melt/flowLimit'
import { type MeltLoads, meltLoads } from './melt/meltLoad'

/** How melting, cooling and bonding go, and what they do to the surface. */
export interface PhysicsFigures {
  readonly melt: FlowModel & {
    /** Nineteen twentieths of the plastic are laid under this load, flow over failing flow; and the layer of the highest. */
    readonly load95: number
    readonly highest: number
    readonly highestAtZMm: number
    /** Share of the plastic that is missing, and layers that miss more than a fiftieth. */
    readonly missing: number
    readonly layersShort: number
    /** Failing flow at the same nozzle 5 and 10 °C hotter, mm³/s. */
    readonly failsAtPlus: readonly [number, number]
  }
  readonly cooling: CoolingFigures
  readonly bond: {
    /** Mean over the layers, and of the one that bonds worst, as a share of the bulk. */
    readonly mean: number
    readonly worst: number
    readonly worstAtZMm: number
  }
  readonly gloss: GlossFigures
}

export interface PhysicsInput {
  readonly layers: Layers
  /** Of all copies, and the plan of it. */
  readonly path: Toolpath
  readonly motion: Motion
  readonly scopes: Scopes
  readonly setup: KnownSetup
}

/**
 * What is known of every layer of one part, the worst of its copies; not a number where a layer has none of it. Shares are
 * 0–1, `cooling` is layer time over time needed.
 */
export interface LayerTracks {
  readonly z: Float64Array
  readonly timeS: Float64Array
  readonly melt: Float64Array
  readonly missing: Float64Array
  readonly cooling: Float64Array
  readonly bond: Float64Array
  readonly gloss: Float64Array
  readonly overAirMm: Float64Array
}

/** A layer that misses more of its plastic than this looks starved. */
const STARVED = 0.02

/** Figures of the whole, and what they are made of layer by layer. */
export function physicsFigures(input: PhysicsInput): { readonly figures: PhysicsFigures; readonly tracks: LayerTracks } {
  const { layers, path, motion, scopes, setup } = input
  const { constants } = setup
  const { settings } = scopes
  const { nozzleTemperature } = settings
  const count = layerCount(layers)
  // Copies printed one after another repeat the layers of the part.
  const own = (layer: number): number => layer % count
  const zOf = (layer: number): number => layers.top[own(layer)]!
  const settingsAt = (layer: number): Settings => scopes.settingsOf(scopeOn(layers, own(layer), scopes))
  const failsAt = failingFlow(setup)
  const loads = meltLoads(path, motion, heatBy(settingsAt, layerCount(layers), constants), failsAt, zOf, constants.melt)
  const sums = sumLayers(path, motion, dullingFlow(setup, settingsAt, count), zOf, scopes, constants.finish)
  const cooled = Array.from({ length: motion.layerTime.length }, (_, layer) => {
    const there = settingsAt(layer)
    // The layer on the bed is told with the fan still, though programs leave it off there.
    const share = own(layer) === 0 ? 1 : fanShare(own(layer), settings)
    const fan = (share * (sums.fan?.[layer] ?? there.fanSpeed)) / 100
    return {
      z: zOf(layer),
      height: layers.height[own(layer)]!,
      timeS: motion.layerTime[layer]!,
      area: groupArea(layers.outlines, own(layer)),
      overAirMm: sums.overAir[layer]!,
      nozzleTemperature: heatOn(own(layer), there).nozzle,
      fan,
      fanOverAir: Math.max(fan, there.overhangFan50 / 100),
    }
  })
  const machine = { material: setup.material, printer: setup.printer, constants: constants.cooling }
  const wet = setup.stock ? waterTaken(setup.stock, setup.material) : 0
  const bond = new Float64Array(count).fill(1)
  for (const [layer, { z, timeS, height, fan }] of cooled.entries()) {
    const above = layer + 1
    if (above >= cooled.length || own(above) === 0) continue
    const scene = { ...machine, nozzleTemperature: cooled[above]!.nozzleTemperature, fan, bonding: constants.bond }
    const { bed } = heatOn(own(layer), settingsAt(layer))
    const bedWarmth = Math.max(0, bed - airTemperature(machine)) * Math.exp(-z / constants.bond.bedReach)
    const below = { height, seconds: timeS, bedWarmth }
    const dry = bondFactor(scene, below, loads.missing[above]!, loads.mean[above]!)
    bond[own(above)] = Math.min(bond[own(above)]!, dry * (1 - constants.bond.wet * wet))
  }
  const worst = (values: ArrayLike<number>, of: (a: number, b: number) => number): Float64Array => {
    const kept = Float64Array.from({ length: count }, (_, layer) => values[layer]!)
    for (let layer = count; layer < values.length; layer++) kept[own(layer)] = of(kept[own(layer)]!, values[layer]!)
    return kept
  }
  return {
    tracks: {
      z: layers.top.slice(),
      timeS: worst(motion.layerTime, Math.min),
      melt: worst(loads.highest, Math.max),
      missing: worst(loads.missing, Math.max),
      cooling: worst(
        cooled.map((layer) => marginOf(machine, layer)),
        Math.min,
      ),
      bond,
      gloss: worst(sums.glossOfLayer, (first) => first),
      overAirMm: worst(sums.overAir, Math.max),
    },
    figures: {
      melt: {
        ...flowModel(setup, nozzleTemperature, constants),
        ...meltFigures(loads, motion, zOf),
        failsAtPlus: [failsAt(nozzleTemperature + 5), failsAt(nozzleTemperature + 10)],
      },
      cooling: coolingFigures(machine, cooled),
      bond: bondFigures(bond, layers),
      gloss: sums.gloss.finish(),
    },
  }
}

/** Of every move: melt load (flow over failing flow, 0 where nothing is laid) and gloss (0–1; NaN but on the outer wall). */
export interface MoveTracks {
  readonly meltLoad: Float32Array
  readonly gloss: Float32Array
}

export function moveTracks({ layers, path, motion, scopes, setup }: PhysicsInput): MoveTracks {
  const { constants } = setup
  const own = (layer: number): number => layer % layerCount(layers)
  const { feature, area, layerStart } = path
  const meltLoad = new Float32Array(feature.length)
  const gloss = new Float32Array(feature.length).fill(Number.NaN)
  const settingsAt = (layer: number): Settings => scopes.settingsOf(scopeOn(layers, own(layer), scopes))
  const zOf = (layer: number): number => layers.top[own(layer)]!
  const heat = heatBy(settingsAt, layerCount(layers), constants)
  meltLoads(path, motion, heat, failingFlow(setup), zOf, constants.melt, meltLoad)
  const dulls = dullingFlow(setup, settingsAt, layerCount(layers))
  for (let layer = 1; layer < layerStart.length - 1; layer++) {
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
      if (feature[m] === code.outerWall) gloss[m] = glossAt((area[m]! * motion.peak[m]!) / dulls(layer), constants.finish)
  }
  return { meltLoad, gloss }
}

const failingFlow =
  (setup: KnownSetup) =>
  (celsius: number): number =>
    flowModel(setup, celsius, setup.constants).failsAt

/** Flow at which the filament turns matte, by layer. */
const dullingFlow =
  ({ material, constants }: KnownSetup, settingsAt: (layer: number) => Settings, count: number) =>
  (layer: number): number =>
    dullsAt(material, heatOn(layer % count, settingsAt(layer)).nozzle, constants.finish)

const heatBy =
  (settingsAt: (layer: number) => Settings, count: number, { cooling: { room } }: Constants) =>
  (layer: number) => {
    const { nozzle, bed } = heatOn(layer % count, settingsAt(layer))
    return { nozzle, bedAboveRoom: bed - room }
  }

function meltFigures({ highest, missing, load95 }: MeltLoads, motion: Motion, zOf: (layer: number) => number) {
  let worst = 0
  let weighted = 0
  let time = 0
  let layersShort = 0
  for (let layer = 0; layer < highest.length; layer++) {
    if (highest[layer]! > highest[worst]!) worst = layer
    if (missing[layer]! > STARVED) layersShort++
    weighted += missing[layer]! * motion.layerTime[layer]!
    time += motion.layerTime[layer]!
  }
  return { load95, highest: highest[worst] ?? 0, highestAtZMm: zOf(worst), missing: time > 0 ? weighted / time : 0, layersShort }
}

function bondFigures(bonds: Float64Array, layers: Layers): PhysicsFigures['bond'] {
  // The first layer lies on the bed and has no interface of its own.
  const interfaces = bonds.subarray(1)
  if (interfaces.length === 0) return { mean: 1, worst: 1, worstAtZMm: 0 }
  const worst = interfaces.indexOf(Math.min(...interfaces))
  return {
    mean: interfaces.reduce((sum, bond) => sum + bond, 0) / interfaces.length,
    worst: interfaces[worst]!,
    worstAtZMm: layers.top[worst]!,
  }
}

/** Gloss of the outer wall, line over air and, where it changes within layers, the mean fan of every layer. */
function sumLayers(
  path: Toolpath,
  { peak }: Motion,
  dulls: (layer: number) => number,
  zOf: (layer: number) => number,
  scopes: Scopes,
  finish: Constants['finish'],
) {
  const layers = path.layerStart.length - 1
  const gloss = new GlossSums(finish)
  const overAir = new Float64Array(layers)
  const glossOfLayer = new Float64Array(layers)
  const fan = scopes.overrides.some(({ values }) => values.fanSpeed !== undefined) ? new Float64Array(layers) : undefined
  for (let layer = 0; layer < layers; layer++) {
    overAir[layer] = overAirOf(path, layer)
    // The first layer is laid slowly and takes the bed's face.
    if (layer > 0) addGloss(path, peak, layer, 1 / dulls(layer), gloss)
    glossOfLayer[layer] = gloss.endLayer(zOf(layer))
    if (fan) fan[layer] = meanFanOf(path, layer, scopes)
  }
  return { gloss, glossOfLayer, overAir, fan }
}

// Layer by layer, so that the compiler meets small loops often.

const lengthOf = ({ x, y }: Toolpath, m: number): number => Math.sqrt((x[m + 1]! - x[m]!) ** 2 + (y[m + 1]! - y[m]!) ** 2)

/** Line of a layer that hangs over air by half or more, mm. */
function overAirOf(path: Toolpath, layer: number): number {
  const { air, layerStart } = path
  let length = 0
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) if (air[m]! >= 128) length += lengthOf(path, m)
  return length
}

function addGloss(path: Toolpath, peak: Float32Array, layer: number, perFlow: number, gloss: GlossSums): void {
  const { feature, area, layerStart } = path
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
    if (feature[m] === code.outerWall) gloss.add(area[m]! * peak[m]! * perFlow, lengthOf(path, m))
}

function meanFanOf(path: Toolpath, layer: number, scopes: Scopes): number {
  const { area, scope, layerStart } = path
  let weighted = 0
  let laid = 0
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    if (!(area[m]! > 0)) continue
    weighted += lengthOf(path, m) * scopes.settingsOf(scope[m]!).fanSpeed
    laid += lengthOf(path, m)
  }
  return laid > 0 ? weighted / laid : scopes.settings.fanSpeed
}
