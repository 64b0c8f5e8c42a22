import { type Check, runChecks } from './advice/checks'
import { InputError } from './errors'
import { type SurfaceFigures, surfaceFigures } from './finish/surfaceFigures'
import { filamentLength, massOf } from './melt/flow'
import { measureSize } from './mesh/measure'
import type { Mesh } from './mesh/mesh'
import { type Placement, place } from './mesh/place'
import type { MeshReport } from './mesh/repair'
import { planMotion } from './motion/planMotion'
import { type TimeFigures, timeFigures } from './motion/timeFigures'
import { resolveSettings, type Setup } from './profile/resolve'
import {
  settings as definitions,
  type SettingName,
  type Settings,
  type SettingValues,
  type Stage,
  settingNames,
  stages,
} from './profile/settings'
import type { Contours } from './regions/contours'
import { polygonArea } from './regions/contours'
import { findRegions } from './regions/findRegions'
import type { PolygonKernel } from './regions/polygon'
import { layerCount } from './slicing/layers'
import { slice } from './slicing/slice'
import { StageCache, stageKey } from './stageCache'
import { type LoadCase, type LoadFigure, strengthFigures } from './strength/strengthFigures'
import { laidVolume } from './toolpath/laidVolume'
import { layPaths } from './toolpath/layPaths'

/** A part as it was read: its clean mesh, what is known about it, and a key that names its content. */
export interface Part {
  readonly key: string
  readonly mesh: Mesh
  readonly report: MeshReport
}

/** Everything foretold for one candidate. Units are in the names. */
export interface Prediction extends TimeFigures {
  readonly layerCount: number
  readonly filament: {
    readonly lengthMm: number
    readonly volumeMm3: number
    readonly massG: number
    /** Filament and machine time together, in the currency of the shelf. */
    readonly cost: number
    readonly materialCost: number
    readonly machineCost: number
  }
  readonly surface: SurfaceFigures
  readonly strength: Readonly<Record<LoadCase, LoadFigure>>
  /** The part as placed on the bed. */
  readonly mesh: {
    readonly triangles: number
    readonly volumeMm3: number
    readonly sizeMm: readonly [number, number, number]
    readonly watertight: boolean
    readonly notes: readonly string[]
  }
  readonly checks: readonly Check[]
  readonly settings: Settings
  readonly origins: Readonly<Record<SettingName, string>>
}

export interface PredictOptions {
  readonly kernel: PolygonKernel
  readonly cache?: StageCache
  /**
   * Told what is being worked on: a stage, and the share of it that is done (0–1). May throw `Cancelled` to stop.
   */
  readonly onProgress?: (stage: Stage, share: number) => void
}

/** The pipeline works in whole tenths of a micrometre and in memory; a part beyond this is most likely in a wrong unit, mm. */
const LARGEST_PART = 3000
const MOST_LAYERS = 20_000

/**
 * The whole pipeline: mesh → layers → regions → toolpath → motion → figures. Each stage sees only its input and the
 * settings that belong to it or to a stage above, and is computed only when one of those has changed.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function predict(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): Prediction {
  const { kernel, cache = new StageCache(), onProgress = () => {} } = options
  const resolved = resolveSettings(setup, values)
  const { settings } = resolved
  const progressOf = (stage: Stage) => (done: number, of: number) => onProgress(stage, done / of)
  const { printer, material } = setup

  const meshKey = stageKey('mesh', part.key, placement)
  const mesh = cache.get('mesh', meshKey, () => place(part.mesh, placement))
  const sizeMm = measureSize(mesh)
  refuseImpossible(sizeMm, settings)

  const layersKey = stageKey('layers', meshKey, own('layers', settings))
  const layers = cache.get('layers', layersKey, () => slice(mesh, visible('layers', settings), kernel, progressOf('layers')))
  const surface = cache.get('surface', layersKey, () => surfaceFigures(mesh, layers))

  const regionsKey = stageKey('regions', layersKey, own('regions', settings))
  const regions = cache.get('regions', regionsKey, () => findRegions(layers, visible('regions', settings), kernel, progressOf('regions')))

  const pathKey = stageKey('toolpath', regionsKey, own('toolpath', settings))
  const path = cache.get('toolpath', pathKey, () => layPaths(layers, regions, visible('toolpath', settings), progressOf('toolpath')))
  const volumeMm3 = cache.get('volume', pathKey, () => laidVolume(path))
  const strength = cache.get('strength', stageKey('strength', pathKey, material.strength), () =>
    strengthFigures(path, visible('toolpath', settings), material),
  )

  const { limits, cornerSchool, filamentDiameter } = printer
  const motionPrinter = { limits, cornerSchool, filamentDiameter }
  const motionKey = stageKey('motion', pathKey, [own('motion', settings), motionPrinter])
  const time = cache.get('motion', motionKey, () => {
    const motion = planMotion(path, visible('motion', settings), motionPrinter, progressOf('motion'))
    return timeFigures(path, motion, settings.minLayerTime)
  })

  const massG = massOf(volumeMm3, material.density)
  const materialCost = (massG / 1000) * material.pricePerKg
  const machineCost = (time.timeS / 3600) * printer.costPerHour
  return {
    ...time,
    layerCount: layerCount(layers),
    filament: {
      lengthMm: filamentLength(volumeMm3, filamentDiameter),
      volumeMm3,
      massG,
      cost: materialCost + machineCost,
      materialCost,
      machineCost,
    },
    surface,
    strength,
    mesh: {
      triangles: part.report.triangles,
      volumeMm3: part.report.volumeMm3 * placement.scale ** 3,
      sizeMm,
      watertight: part.report.watertight,
      notes: [...part.report.notes, ...layers.notes],
    },
    checks: runChecks({
      setup,
      resolved,
      sizeMm,
      mesh: part.report,
      time,
      laidVolumeMm3: volumeMm3,
      layerCount: layerCount(layers),
      layersWithLostPieces: settings.wallCount === 0 ? 0 : countLostPieces(layers.outlines, regions.walls[0]!),
    }),
    settings,
    origins: resolved.origins,
  }
}

/** Settings that a stage is the first to read: what its key is made of. */
function own(stage: Stage, settings: Settings): Partial<Settings> {
  return Object.fromEntries(settingNames.filter((name) => definitions[name].stage === stage).map((name) => [name, settings[name]]))
}

/** Settings that a stage may read at all: its own and those of the stages above, which its input already depends on. */
function visible(stage: Stage, settings: Settings): Settings {
  const reach = stages.indexOf(stage)
  return Object.fromEntries(
    settingNames.filter((name) => stages.indexOf(definitions[name].stage) <= reach).map((name) => [name, settings[name]]),
  ) as unknown as Settings
}

function refuseImpossible(sizeMm: readonly number[], settings: Settings): void {
  const largest = Math.max(...sizeMm)
  if (largest > LARGEST_PART) {
    throw new InputError(
      'part-too-large',
      `The part is ${Math.round(largest)} mm long; ${LARGEST_PART} mm is the most that can be worked on.`,
      'part',
      'Set its scale: the file may be in another unit.',
    )
  }
  const layers = sizeMm[2]! / settings.layerHeight
  if (layers > MOST_LAYERS) {
    throw new InputError(
      'too-many-layers',
      `${Math.round(layers)} layers are more than the ${MOST_LAYERS} that can be worked on.`,
      'layerHeight',
      'Use thicker layers or a smaller part.',
    )
  }
}

/** Layers that have more separate pieces in the model than in the outer wall. */
function countLostPieces(outlines: Contours, outerWalls: Contours): number {
  const pieces = (contours: Contours, layer: number): number => {
    let n = 0
    for (let p = contours.groupStart[layer]!; p < contours.groupStart[layer + 1]!; p++) if (polygonArea(contours, p) > 0) n++
    return n
  }
  let layersWithLoss = 0
  for (let layer = 0; layer < outlines.groupStart.length - 1; layer++)
    if (pieces(outlines, layer) > pieces(outerWalls, layer)) layersWithLoss++
  return layersWithLoss
}
