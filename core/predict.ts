import type { Check } from './checks/check'
import { runChecks } from './checks/runChecks'
import { openTravel, type StringFigures, stringFigures } from './finish/strings'
import { type SurfaceFigures, surfaceFigures, treatmentOf } from './finish/surfaceFigures'
import { type TopClosure, topClosure } from './finish/topClosure'
import { type UnproppedTop, unproppedTops } from './finish/unproppedTops'
import { filamentLength, massOf } from './melt/flow'
import { measureSize } from './mesh/measure'
import type { Mesh } from './mesh/mesh'
import { type Placement, place } from './mesh/place'
import { refuseImpossible } from './mesh/refuseImpossible'
import type { MeshReport } from './mesh/repair'
import type { MotionPrinter } from './motion/moveChunk'
import { type Motion, planMotion } from './motion/planMotion'
import { startUpTime } from './motion/startUp'
import { type TimeFigures, timeFigures } from './motion/timeFigures'
import { type LayerTracks, type PhysicsFigures, physicsFigures } from './physicsFigures'
import { type Exception, Scopes } from './profile/exceptions'
import { type ResolvedSettings, resolveSettings, type Setup } from './profile/resolve'
import { type Stage, stages } from './profile/setting'
import { settings as definitions, type SettingName, type Settings, type SettingValues, settingNames } from './profile/settings'
import { groupArea } from './regions/contours'
import { countLostPieces } from './regions/countLostPieces'
import { findRegions, type Regions } from './regions/findRegions'
import type { PolygonKernel } from './regions/polygon'
import { seamLength } from './regions/seamLength'
import type { Basis } from './shelf/material'
import { type Layers, layerCount } from './slicing/layers'
import { slice } from './slicing/slice'
import { toBeltFrame } from './slicing/tiltedBelt'
import { StageCache, stageKey } from './stageCache'
import { usualGrip } from './strength/grip'
import { limbsAlong, limbsByAxis } from './strength/limbsByAxis'
import { findObliqueSections, obliqueFigures } from './strength/oblique'
import type { LoadPlace } from './strength/purpose'
import { type LoadCase, type LoadFigure, type LoadKind, sectionsByAxis, strengthFigures } from './strength/strengthFigures'
import { outlinesOf } from './strength/stretches'
import { type SupportSwayFigures, supportSway } from './sway/supportSway'
import { layerSections, type SwayFigures, swayByLayer, swayFigures } from './sway/sway'
import { toBeltAxes } from './toolpath/beltAxes'
import { copyPaths } from './toolpath/copyPaths'
import { laidVolume } from './toolpath/laidVolume'
import { layPaths } from './toolpath/layPaths'
import { longestBridge } from './toolpath/longestBridge'
import type { Toolpath } from './toolpath/toolpath'
import { type TravelFigures, travelFigures } from './toolpath/travelFigures'

/** A part as it was read: its clean mesh, what is known about it, and a key that names its content. */
export interface Part {
  readonly key: string
  readonly mesh: Mesh
  readonly report: MeshReport
}

/** Everything foretold for one candidate. Units are in the names. */
export interface Prediction extends TimeFigures, PhysicsFigures {
  readonly layerCount: number
  /** Tops under which the infill has no line; looked for only where it is sparse. */
  readonly unproppedTops: readonly UnproppedTop[]
  /** Heating, homing and purging, s; absent where the printer's record does not tell. */
  readonly startUpS?: number
  /** Of printing alone; absent where the printer's record tells no power, kWh. */
  readonly energyKWh?: number
  readonly filament: {
    readonly lengthMm: number
    readonly volumeMm3: number
    readonly massG: number
    /** Of this, supports and what lies around the foot. */
    readonly supportG: number
    readonly footG: number
    /** Filament and machine time together, in the currency of the shelf. */
    readonly cost: number
    readonly materialCost: number
    readonly machineCost: number
    /** What will be left on the spool, where one is chosen; below 0 it does not last. */
    readonly spoolLeftG?: number
    /** Measured only where spool and reel were weighed. */
    readonly spoolLeftBasis?: Basis
  }
  readonly tracks: LayerTracks & { readonly swayMm: Float64Array }
  readonly travel: TravelFigures
  readonly surface: SurfaceFigures
  readonly sway: SwayFigures
  readonly supportSway: SupportSwayFigures
  readonly strings: StringFigures
  readonly topClosure: TopClosure
  /** Seams of the outer wall, one after another up the part, mm. */
  readonly seamMm: number
  readonly strength: Readonly<Record<LoadCase, LoadFigure>>
  /** Of a flexible part it matters how far it gives way, not when it fails. */
  readonly flexible: boolean
  /** Along the direction that was asked for. */
  readonly oblique?: Readonly<Record<LoadKind, LoadFigure>>
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
  /** Places where other values hold. */
  readonly exceptions?: readonly Exception[]
  /** Where the part is held and loaded, and along which direction, when it is none of the axes. */
  readonly load?: LoadPlace | undefined
  readonly kernel: PolygonKernel
  readonly cache?: StageCache
  /**
   * Told what is being worked on: a stage, and the share of it that is done (0–1). May throw `Cancelled` to stop.
   */
  readonly onProgress?: (stage: Stage, share: number) => void
}

/** Degrees, for a tilted printer whose record does not tell; common. */
const DEFAULT_BELT_ANGLE = 45

/** Denser infill than this, %, has a line under every top that could not bridge by itself. */
const SPARSE = 8

/** A part laid out on the bed, before any motion is planned. */
export interface LaidDown {
  readonly resolved: ResolvedSettings
  /** In the frame of the layers: turned with the gantry on a tilted belt. */
  readonly mesh: Mesh
  /** As the part lies on the bed or belt. */
  readonly sizeMm: readonly [number, number, number]
  readonly layers: Layers
  readonly layersKey: string
  readonly regions: Regions
  readonly regionsKey: string
  /** One part's path, and the path of all copies. */
  readonly single: Toolpath
  readonly path: Toolpath
  readonly pathKey: string
}

/**
 * The first half of the pipeline: mesh → layers → regions → toolpath.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function layDown(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): LaidDown {
  const { kernel, cache = new StageCache(), onProgress = () => {}, exceptions = [] } = options
  const resolved = resolveSettings(setup, values)
  const { settings } = resolved
  const { printer } = setup
  const { bore } = setup.nozzle
  const progressOf = (stage: Stage) => (done: number, of: number) => onProgress(stage, done / of)
  const keyOf = (stage: Stage, input: string, also?: unknown): string => stageKey(stage, input, [own(stage, settings, exceptions), also])
  const scopesFor = (stage: Stage): Scopes => visible(stage, settings, exceptions)

  const meshKey = stageKey('mesh', part.key, placement)
  const placed = cache.get('mesh', meshKey, () => place(part.mesh, placement))
  const sizeMm = cache.get('size', meshKey, () => measureSize(placed))
  const tilt = printer.kinematics === 'tiltedBelt' ? (printer.beltAngle ?? DEFAULT_BELT_ANGLE) : undefined
  const frame = tilt === undefined ? undefined : cache.get('belt', stageKey('belt', meshKey, tilt), () => toBeltFrame(placed, tilt))
  const mesh = frame?.mesh ?? placed
  refuseImpossible(frame ? measureSize(mesh) : sizeMm, settings)

  const layersKey = keyOf('layers', meshKey, tilt)
  const layers = cache.get('layers', layersKey, () => {
    const scopes = scopesFor('layers')
    const sliced = slice(mesh, (z) => scopes.settingsOf(scopes.ofLayer(z, frame?.belt)), kernel, progressOf('layers'))
    return frame ? { ...sliced, belt: frame.belt } : sliced
  })

  const regionsKey = keyOf('regions', layersKey, bore)
  const regions = cache.get('regions', regionsKey, () => {
    return findRegions(layers, scopesFor('regions'), bore, kernel, progressOf('regions'))
  })

  const pathKey = keyOf('toolpath', regionsKey)
  const single = cache.get('toolpath', pathKey, () =>
    layPaths(layers, regions, scopesFor('toolpath'), kernel, { onLayer: progressOf('toolpath') }),
  )
  const path = cache.get('copies', pathKey, () => {
    const copied = copyPaths(single, sizeMm, settings, frame?.belt)
    return frame ? toBeltAxes(copied, frame.belt) : copied
  })
  return { resolved, mesh, sizeMm, layers, layersKey, regions, regionsKey, single, path, pathKey }
}

/** Plans the motion of what was laid down. */
export function planFor({ path, resolved }: LaidDown, setup: Setup, options: PredictOptions): Motion {
  const { exceptions = [], onProgress = () => {} } = options
  const scopes = visible('motion', resolved.settings, exceptions)
  return planMotion(
    path,
    (scope) => scopes.settingsOf(scope),
    motionPrinter(setup),
    (done, of) => onProgress('motion', done / of),
  )
}

const motionPrinter = ({ printer: { limits, cornerSchool, filamentDiameter } }: Setup): MotionPrinter => ({
  limits,
  cornerSchool,
  filamentDiameter,
})

/**
 * The whole pipeline: mesh → layers → regions → toolpath → motion → figures. Each stage sees only its input and the
 * settings that belong to it or to a stage above, and is computed only when one of those has changed.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function predict(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): Prediction {
  const { cache = new StageCache(), exceptions = [] } = options
  const laid = layDown(part, placement, setup, values, { ...options, cache })
  const { resolved, mesh, sizeMm, layers, regions, single, path, pathKey } = laid
  const { settings } = resolved
  const { printer, material } = setup
  const { filamentDiameter } = printer
  const treatment = treatmentOf(settings)
  const surface = cache.get('surface', stageKey('surface', laid.layersKey, treatment), () => surfaceFigures(mesh, layers, treatment))
  const volume = cache.get('volume', pathKey, () => laidVolume(path))
  const volumeMm3 = volume.total
  const { grip, direction } = options.load ?? {}
  const limbs = cache.get('limbs', stageKey('limbs', laid.layersKey, grip), () => limbsByAxis(outlinesOf(layers), grip ?? usualGrip))
  const sections = cache.get('sections', stageKey('sections', pathKey, grip), () => sectionsByAxis(single, settings, limbs))
  const motionKey = stageKey('motion', pathKey, [own('motion', settings, exceptions), motionPrinter(setup)])
  const motion = cache.get('motion', motionKey, () => planFor(laid, setup, options))
  const time = cache.get('time', motionKey, () => timeFigures(path, motion, settings.minLayerTime))
  const physicsKey = stageKey('physics', motionKey, [own('figures', settings, exceptions), printer, setup.nozzle, material])
  const physics = cache.get('physics', physicsKey, () =>
    physicsFigures({ layers, path, motion, wallSpeed: time.realSpeeds.outerWall, scopes: visible('figures', settings, exceptions), setup }),
  )
  const strength = cache.get('strength', stageKey('strength', physicsKey, grip), () =>
    strengthFigures(sections, material, physics.tracks.bond, grip),
  )
  const oblique =
    direction &&
    obliqueFigures(
      cache.get('oblique', stageKey('oblique', pathKey, [direction, grip]), () =>
        findObliqueSections(single, direction, settings, limbsAlong(outlinesOf(layers), direction, grip ?? usualGrip)),
      ),
      direction,
      material,
      physics.tracks.bond,
      grip,
    )
  const upright = cache.get('upright', pathKey, () => layerSections(single))
  const sway = swayFigures(upright, material.strength.modulus, settings.lineWidth)
  // A branch is a single rim, whose second moment over the full round's is 4·w/r; other supports are as stiff as they are dense.
  const stiffShare = (radius: number): number =>
    settings.supports === 'branching' ? Math.min(1, (4 * settings.lineWidth) / radius) : settings.supportDensity / 100
  const supports = cache.get('supportSway', stageKey('supportSway', pathKey, material.strength.modulus), () =>
    supportSway(regions.support.body, layers, stiffShare, material.strength.modulus),
  )
  const closure = topClosure(settings)
  const travels = cache.get('openTravel', pathKey, () => openTravel(single, layers.outlines))
  const [low, high] = material.nozzleRange
  const strings = stringFigures(travels, printer.extruder, settings.retractLength > 0, settings.nozzleTemperature - (low + high) / 2)

  const travel = cache.get('travel', pathKey, () =>
    travelFigures(layers, regions, single, visible('toolpath', settings, exceptions), options.kernel),
  )
  const massG = massOf(volumeMm3, material.density)
  const materialCost = (massG / 1000) * material.pricePerKg
  const machineCost = (time.timeS / 3600) * printer.costPerHour
  const tops =
    settings.infillDensity > 0 && settings.infillDensity <= SPARSE
      ? cache.get('tops', pathKey, () => unproppedTops(layers, regions, single, settings.lineWidth, options.kernel))
      : []
  const startUpS = startUpTime(printer, settings.nozzleTemperature, settings.bedTemperature)
  return {
    ...time,
    ...(startUpS === undefined ? {} : { startUpS }),
    ...(printer.watts === undefined ? {} : { energyKWh: (printer.watts * time.timeS) / 3.6e6 }),
    layerCount: layerCount(layers),
    unproppedTops: tops,
    filament: {
      lengthMm: filamentLength(volumeMm3, filamentDiameter),
      volumeMm3,
      massG,
      supportG: massOf(volume.support, material.density),
      footG: massOf(volume.foot, material.density),
      cost: materialCost + machineCost,
      materialCost,
      machineCost,
      ...(setup.stock
        ? {
            spoolLeftG: setup.stock.remaining.grams - massG,
            spoolLeftBasis: setup.stock.remaining.from === 'weighed' ? ('measured' as const) : ('assumed' as const),
          }
        : {}),
    },
    ...physics.figures,
    tracks: { ...physics.tracks, swayMm: swayByLayer(upright, physics.tracks.z, material.strength.modulus) },
    travel,
    surface,
    sway,
    supportSway: supports,
    strings,
    topClosure: closure,
    seamMm: cache.get('seams', laid.regionsKey, () => seamLength(regions, layers)),
    strength,
    flexible: material.family === 'flexible',
    ...(oblique ? { oblique } : {}),
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
      belt: layers.belt,
      mesh: part.report,
      time,
      massG,
      laidVolumeMm3: volume.total - volume.support - volume.foot,
      layerCount: layerCount(layers),
      footMm2: groupArea(layers.outlines, 0),
      overAirMm: physics.tracks.overAirMm.reduce((sum, mm) => sum + mm, 0),
      longestBridgeMm: cache.get('longestBridge', pathKey, () => longestBridge(single)),
      lostMm2: regions.lost.reduce((sum, area) => sum + area, 0),
      unheldMm2: regions.support.unheldMm2,
      unproppedTops: tops,
      melt: physics.figures.melt,
      cooling: physics.figures.cooling,
      bond: physics.figures.bond,
      gloss: physics.figures.gloss,
      ringing: physics.figures.ringing,
      sway,
      supportSway: supports,
      topClosure: closure,
      strings,
      layersWithLostPieces: regions.walls[0] ? countLostPieces(layers.outlines, regions.walls[0], regions.thin) : 0,
    }),
    settings,
    origins: resolved.origins,
  }
}

/** What a stage is the first to read, in the profile and in its exceptions: what its key is made of. */
function own(stage: Stage, settings: Settings, exceptions: readonly Exception[]): unknown {
  const isOwn = (name: SettingName): boolean => definitions[name].stage === stage
  const places = exceptions.flatMap(({ name: _, values, speedPercent, ...place }) => {
    const ownValues = Object.entries(values).filter(([name]) => isOwn(name as SettingName))
    const speeds = stage === 'motion' ? speedPercent : undefined
    // Paths are divided at the rim of a place whatever changes there.
    return ownValues.length > 0 || speeds !== undefined || stage === 'toolpath' ? [[place, ownValues, speeds]] : []
  })
  return [Object.fromEntries(settingNames.filter(isOwn).map((name) => [name, settings[name]])), places]
}

/** Settings that a stage may read at all: its own and those of the stages above, which its input already depends on. */
function visible(stage: Stage, settings: Settings, exceptions: readonly Exception[]): Scopes {
  const reach = stages.indexOf(stage)
  const only = (values: SettingValues): SettingValues =>
    Object.fromEntries(Object.entries(values).filter(([name]) => stages.indexOf(definitions[name as SettingName].stage) <= reach))
  return new Scopes(
    only(settings) as Settings,
    exceptions.map(({ speedPercent, values, ...place }) => ({
      ...place,
      ...(reach >= stages.indexOf('motion') && speedPercent !== undefined ? { speedPercent } : {}),
      values: only(values),
    })),
  )
}
