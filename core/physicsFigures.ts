import { bondFactor } from './cooling/bond'
import { type CoolingFigures, coolingFigures } from './cooling/layerCooling'
import { type GlossFigures, GlossSums } from './finish/gloss'
import { type RingingFigures, ringingFigures } from './finish/ringing'
import { type FlowModel, flowModel } from './melt/flowLimit'
import { type MeltLoads, meltLoads } from './melt/meltLoad'
import type { Motion } from './motion/planMotion'
import type { RealSpeed } from './motion/timeFigures'
import type { Setup } from './profile/resolve'
import type { Settings } from './profile/settings'
import { groupArea } from './regions/contours'
import { ROOM } from './shelf/heat'
import { type Layers, layerCount } from './slicing/layers'
import { code, type Toolpath } from './toolpath/toolpath'

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
  readonly ringing: RingingFigures
}

export interface PhysicsInput {
  readonly layers: Layers
  /** Of all copies, and the plan of it. */
  readonly path: Toolpath
  readonly motion: Motion
  readonly wallSpeed: RealSpeed
  readonly settings: Settings
  readonly setup: Setup
}

/** A layer that misses more of its plastic than this looks starved. */
const STARVED = 0.02

/** @returns the figures, and the bond of every layer of one part to the layer below it */
export function physicsFigures(input: PhysicsInput): { readonly figures: PhysicsFigures; readonly bonds: Float64Array } {
  const { layers, path, motion, settings, setup, wallSpeed } = input
  const { nozzleTemperature, bedTemperature, fanSpeed } = settings
  const failsAt = (celsius: number): number => flowModel(setup, celsius).failsAt
  // Copies printed one after another repeat the layers of the part.
  const own = (layer: number): number => layer % layerCount(layers)
  const zOf = (layer: number): number => layers.top[own(layer)]!
  const loads = meltLoads(path, motion, nozzleTemperature, failsAt, bedTemperature - ROOM, zOf)
  const scene = { material: setup.material, printer: setup.printer, nozzleTemperature, fan: fanSpeed / 100 }
  const sums = sumLayers(path, motion, loads, zOf)
  const cooled = Array.from({ length: motion.layerTime.length }, (_, layer) => ({
    z: zOf(layer),
    height: layers.height[own(layer)]!,
    timeS: motion.layerTime[layer]!,
    area: groupArea(layers.outlines, own(layer)),
    overAirMm: sums.overAir[layer]!,
  }))
  const bonds = new Float64Array(layerCount(layers)).fill(1)
  for (const [layer, { timeS, height }] of cooled.entries()) {
    const above = layer + 1
    if (above >= cooled.length || own(above) === 0) continue
    bonds[own(above)] = Math.min(bonds[own(above)]!, bondFactor(scene, height, timeS, loads.missing[above]!, loads.mean[above]!))
  }
  return {
    bonds,
    figures: {
      melt: {
        ...flowModel(setup, nozzleTemperature),
        ...meltFigures(loads, motion, zOf),
        failsAtPlus: [failsAt(nozzleTemperature + 5), failsAt(nozzleTemperature + 10)],
      },
      cooling: coolingFigures(scene, cooled, fanSpeed / 100, settings.overhangFan50 / 100),
      bond: bondFigures(bonds, layers),
      gloss: sums.gloss.finish(),
      ringing: ringingFigures(
        wallSpeed.speedMmS,
        settings.cornerSpeed,
        settings.outerWallAcceleration || settings.acceleration,
        setup.printer.frameFrequency,
      ),
    },
  }
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

/** Gloss of the outer wall, and line over air of every layer. */
function sumLayers(
  { x, y, area, air, feature, layerStart }: Toolpath,
  { peak }: Motion,
  { failsAt }: MeltLoads,
  zOf: (layer: number) => number,
) {
  const gloss = new GlossSums()
  const overAir = new Float64Array(layerStart.length - 1)
  for (let layer = 0; layer < layerStart.length - 1; layer++) {
    const perLoad = 1 / failsAt[layer]!
    for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
      const isWall = feature[m] === code.outerWall
      if (!isWall && air[m]! < 128) continue
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      const length = Math.sqrt(dx * dx + dy * dy)
      if (air[m]! >= 128) overAir[layer]! += length
      // The first layer is laid slowly and takes the bed's face.
      if (isWall && layer > 0) gloss.add(area[m]! * peak[m]! * perLoad, length)
    }
    gloss.endLayer(zOf(layer))
  }
  return { gloss, overAir }
}
