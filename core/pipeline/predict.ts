import { askedHeats } from '../checks/askedHeats'
import type { Check } from '../checks/check'
import { runChecks } from '../checks/runChecks'
import { groupArea } from '../geometry/contours'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { startUpTime } from '../motion/startUp'
import type { TimeFigures } from '../motion/timeFigures'
import type { PictureFigures } from '../physics/finish/pictureSeen'
import { type StringFigures, stringFigures } from '../physics/finish/strings'
import { type TopClosure, topClosure } from '../physics/finish/topClosure'
import type { UnproppedTop } from '../physics/finish/unproppedTops'
import { type FitFigures, fitOf } from '../physics/fit/fit'
import { footOf, type WarpFigures, warpOf } from '../physics/fit/warp'
import type { LayerTracks, PhysicsFigures } from '../physics/physicsFigures'
import { usualGrip } from '../physics/strength/grip'
import { sectionReads } from '../physics/strength/sectionReads'
import { type SupportSwayFigures, supportSway as supportSwayOf } from '../physics/sway/supportSway'
import type { SwayFigures } from '../physics/sway/sway'
import { heatOn } from '../profile/heatOn'
import { type Override, Scopes } from '../profile/overrides'
import type { SettingName, Settings, SettingValues } from '../profile/settings'
import { lostDetail } from '../regions/lostDetail'
import { seamLength } from '../regions/seamLength'
import { type VesselFigures, vesselFigures } from '../regions/vesselFigures'
import { type KnownSetup, knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { type Layers, layerCount } from '../slicing/layers'
import { scopeOn } from '../slicing/zones'
import { copyPlaces } from '../toolpath/copyPaths'
import { longestBridge } from '../toolpath/longestBridge'
import { placesOff } from '../toolpath/placesOff'
import { type TravelFigures, travelFigures } from '../toolpath/travelFigures'
import { doAlone } from '../work/doAlone'
import { atOnce, justOne, type Task, type Work } from '../work/work'
import {
  azimuthTask,
  flatsTask,
  holeTask,
  lineMarksTask,
  loadPathTask,
  openTravelTask,
  physicsTask,
  picturesTask,
  surfaceTask,
  timeTask,
  topsTask,
  uprightTask,
  volumeTask,
} from './figureTasks'
import { type FilamentFigures, filamentFigures } from './filamentFigures'
import { type FinishOf, finishOf } from './finishOf'
import { type CandidateOptions, type LaidDown, layOutWork, motionKeyOf, type PredictOptions, plannedWork, slicedWork } from './layDown'
import type { SolvedSway } from './solvedSway'
import type { SolvedPurpose } from './solvedWork'
import { StageCache, stageKey } from './stageCache'
import { ownOf, visibleTo } from './stageReads'
import { standOf } from './standOf'
import { type StrengthOf, sectionsWork, strengthOf } from './strengthWork'

/** Everything foretold for one candidate. Units are in the names. */
export interface Prediction extends TimeFigures, PhysicsFigures, StrengthOf, FinishOf {
  readonly layerCount: number
  /** How far it is a vessel that one wall could go round without end. */
  readonly vessel: VesselFigures
  /** Pictures that set the speed of the outer wall, as they will be seen. */
  readonly pictures: readonly PictureFigures[]
  /** Tops under which the infill has no line; looked for only where it is sparse. */
  readonly unproppedTops: readonly UnproppedTop[]
  /** Heating, homing and purging, s; absent where the printer's record does not tell. */
  readonly startUpS?: number
  /** Of heating up and printing; absent where the printer's record tells no power, kWh. */
  readonly energyKWh?: number
  readonly filament: FilamentFigures
  readonly tracks: LayerTracks & { readonly swayMm: Float64Array }
  readonly travel: TravelFigures
  /** How well what is laid keeps to the size of its model, and whether it stays flat on the bed. */
  readonly fit: FitFigures
  readonly warp: WarpFigures
  readonly sway: SwayFigures
  readonly supportSway: SupportSwayFigures
  readonly strings: StringFigures
  readonly topClosure: TopClosure
  /** Seams of the outer wall, one after another up the part, mm. */
  readonly seamMm: number
  /** Of a flexible part it matters how far it gives way, not when it fails. */
  readonly flexible: boolean
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
  /** What its purpose's load came to by finite elements, once that is there: it takes longer than all the rest. */
  readonly solved?: SolvedPurpose
  /** How it and its supports give way under the nozzle by finite elements, alike. */
  readonly solvedSway?: SolvedSway
}

/** Denser infill than this, %, has a line under every top that could not bridge by itself. */
const SPARSE = 8

/**
 * The whole pipeline: mesh → layers → regions → toolpath → motion → figures. Each stage sees only its input and the
 * settings that belong to it or to a stage above, and is computed only when one of those has changed.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export const predict = (part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): Prediction =>
  doAlone(predictWork(part, placement, setup, values, options), options.kernel, options.onProgress)

/** A prediction as work that several threads can share. */
export function* predictWork(
  part: Part,
  placement: Placement,
  given: Setup,
  values: SettingValues,
  options: CandidateOptions,
): Work<Prediction> {
  const setup = knownSetup(given)
  const { constants } = setup
  const { cooling, finish } = constants
  const { cache = new StageCache(), overrides = [], load } = options
  const known = { ...options, cache }
  const { printer, material } = setup
  const grip = load?.grip ?? usualGrip
  const sliced = yield* slicedWork(part, placement, setup, values, known)
  const { resolved, mesh, sizeMm, layers, layersKey } = sliced
  const { settings } = resolved
  const figure = <I, R>(key: string, reads: unknown, task: Task<I, R>, input: I): Work<R> =>
    cache.getFrom(task.name, stageKey(task.name, key, reads), () => justOne(task, input))

  const [loadPath, turned, flats, hole, surface, laidDown] = yield* atOnce(
    figure(layersKey, grip, loadPathTask, { layers, grip }),
    figure(layersKey, [], azimuthTask, { layers }),
    figure(layersKey, wallsMm(settings), flatsTask, { layers, thickness: wallsMm(settings) }),
    figure(layersKey, [], holeTask, { layers }),
    figure(layersKey, [treated(settings, overrides), finish], surfaceTask, { mesh, layers, settings, overrides, finish }),
    layOutWork(sliced, setup, known),
  )
  const { regions, seams, laid, single, path, pathKey } = laidDown
  const motion = yield* plannedWork(laidDown, setup, known)
  const motionKey = motionKeyOf(laidDown, setup, overrides)
  const direction = load?.direction
  const scopes = new Scopes(settings, overrides, single.sets)
  const settingsOf = (scope: number): Settings => scopes.settingsOf(scope)
  const reads = sectionReads(constants, sizeMm[2])
  // On a tilted belt copies are in the machine's own axes, where outlines mean nothing.
  const places = layers.belt ? [[0, 0] as const] : copyPlaces(sizeMm, settings)
  const cutWork = sectionsWork({
    laidDown,
    cache,
    scopes,
    reads,
    loadPath,
    turned: load?.named || direction ? 0 : turned,
    upright: turned,
    flats,
    grip,
    direction,
  })
  const picturesWork = overrides.some(({ picture }) => picture)
    ? figure(motionKey, places, picturesTask, { layers, path, motion, places, ...dataOf(visibleTo('motion', settings, overrides)) })
    : nothing()
  const physicsKey = physicsKeyOf(motionKey, settings, overrides, setup)
  const [physics, cut, planned, upright, lines, travels, travel, volume, tops, pictures = []] = yield* atOnce(
    cache.getFrom(physicsTask.name, physicsKey, () =>
      justOne(physicsTask, { layers, path, motion, ...dataOf(visibleTo('figures', settings, overrides)), setup }),
    ),
    cutWork,
    figure(motionKey, [], timeTask, { path, motion, ...dataOf(visibleTo('motion', settings, overrides)) }),
    figure(pathKey, [], uprightTask, { path: single }),
    figure(pathKey, [], lineMarksTask, { path: single }),
    figure(pathKey, [constants.strings.leastTravel, places], openTravelTask, {
      path: layers.belt ? single : path,
      outlines: layers.outlines,
      places,
      leastMm: constants.strings.leastTravel,
    }),
    figure(pathKey, [], travelFigures, { layers, regions, seams, laid, ...dataOf(visibleTo('toolpath', settings, overrides)) }),
    figure(pathKey, [], volumeTask, { path }),
    settings.infillDensity <= SPARSE
      ? figure(pathKey, [], topsTask, { layers, regions, path: single, lineWidth: settings.lineWidth })
      : nothing(),
    picturesWork,
  )
  const { missing } = physics.figures.melt
  const closure = topClosure(settings, finish, tops?.cavityMm)
  const strings = stringFigures(travels, settingsOf, setup, constants.strings)
  const time = atPace(planned, constants.print.pace)
  const { swayMm, sway, supportSway } = standOf({
    settings,
    setup,
    upright,
    tracks: physics.tracks,
    supportSpeed: time.realSpeeds.support.speedMmS,
    swayOfSupports: (share, push) =>
      cache.get('supportSway', stageKey('supportSway', motionKey, push), () => supportSwayOf(regions.support.body, layers, share, push)),
  })
  const longestBridgeMm = cache.get('longestBridge', pathKey, () => longestBridge(single))
  const finished = finishOf({ setup, scopes, time, surface, lines, closure, physics: physics.figures, longestBridgeMm })
  const fit = fitOf({ settings: scopes.settingsOf(scopeOn(layers, 0, scopes)), setup, sizeMm, hole })
  const warp = warpOf({
    settings: scopes.settingsOf(scopeOn(layers, 0, scopes)),
    setup,
    foot: footOf(layers),
    sizeMm,
    solidShare: (volume.total - volume.support - volume.foot) / (part.report.volumeMm3 * placement.scale ** 3),
  })
  const figures = { ...physics.figures, ...finished, fit, warp, sway, supportSway, strings, topClosure: closure }
  // Without any infill there is none that could pass a top by.
  const unpropped = settings.infillDensity > 0 ? (tops?.unpropped ?? []) : []
  const shapes = shapesOf(laidDown, cache, overrides)
  const startUpS = startUpTime(printer, heatOn(0, settings), cooling.room, constants.print.start)
  const filament = filamentFigures(volume, setup, time.timeS + (startUpS ?? 0), constants.print.flow * (1 - missing))
  return {
    ...time,
    ...(startUpS === undefined ? {} : { startUpS }),
    ...energyOf(printer, time.timeS, startUpS),
    layerCount: layerCount(layers),
    vessel: shapes.vessel,
    pictures,
    unproppedTops: unpropped,
    filament,
    tracks: { ...physics.tracks, swayMm },
    travel,
    ...figures,
    seamMm: seamLength(regions, layers, settings),
    ...cache.get('strength', stageKey('strength', physicsKey, [load, reads, material.strength, constants.strength.shear]), () =>
      strengthOf(cut, settings, { material, bonds: physics.tracks.bond, shear: constants.strength.shear, missing }, grip),
    ),
    flexible: material.family === 'flexible',
    mesh: meshTold(part, placement, sizeMm, layers),
    checks: runChecks({
      setup,
      heats: askedHeats(settings, overrides),
      overridden: new Set(overrides.flatMap(({ values }) => Object.keys(values) as SettingName[])),
      resolved,
      sizeMm,
      belt: layers.belt,
      mesh: part.report,
      time,
      massG: filament.massG,
      laidVolumeMm3: volume.total - volume.support - volume.foot,
      layerCount: layerCount(layers),
      footMm2: groupArea(layers.outlines, 0),
      overAirMm: physics.tracks.overAirMm.reduce((sum, mm) => sum + mm, 0),
      longestBridgeMm,
      ...shapes,
      unheldMm2: regions.support.unheldMm2,
      afloat: regions.afloat,
      unproppedTops: unpropped,
      pictures,
      ...figures,
    }),
    settings,
    origins: resolved.origins,
  }
}

/** What is lost of a part, how far it is a vessel, and the names of overrides that hold of nothing that is laid. */
const shapesOf = (
  { layers, layersKey, regions, regionsKey, single, pathKey, resolved: { settings } }: LaidDown,
  cache: StageCache,
  overrides: readonly Override[],
) => ({
  lost: cache.get('lost', regionsKey, () => lostDetail(layers, regions)),
  vessel: cache.get('vessel', stageKey('vessel', layersKey, [settings.bottomLayers, settings.lineWidth]), () =>
    vesselFigures(layers, settings),
  ),
  placesOff:
    overrides.length === 0 ? [] : cache.get('placesOff', pathKey, () => placesOff(single, overrides.length)).map((i) => overrides[i]!.name),
})

const meshTold = ({ report }: Part, { scale }: Placement, sizeMm: Prediction['mesh']['sizeMm'], layers: Layers): Prediction['mesh'] => ({
  triangles: report.triangles,
  volumeMm3: report.volumeMm3 * scale ** 3,
  sizeMm,
  watertight: report.watertight,
  notes: [...report.notes, ...layers.notes],
})

const physicsKeyOf = (motionKey: string, settings: Settings, overrides: readonly Override[], setup: KnownSetup): string =>
  stageKey(physicsTask.name, motionKey, [
    ownOf('figures', settings, overrides),
    setup.printer,
    setup.nozzle,
    readByPhysics(setup.material),
    setup.stock?.days,
    ofPhysics(setup.constants),
  ])

const ofPhysics = ({ melt, cooling, bond, finish }: KnownSetup['constants']): unknown => [melt, cooling, bond, finish]

/** What cooling, melting and bonding read of a material: not how strong its lines are. */
const readByPhysics = ({ strength: { bondFactor }, ...material }: Setup['material']): object => ({ ...material, bondFactor })

/** Of printing, and of heating up where that is told. */
const energyOf = ({ watts, start }: Setup['printer'], timeS: number, startUpS = 0): Pick<Prediction, 'energyKWh'> =>
  watts === undefined ? {} : { energyKWh: (watts * timeS + (start?.watts ?? watts) * startUpS) / 3.6e6 }

const wallsMm = ({ wallCount, lineWidth }: Settings): number => wallCount * lineWidth

/** The times of a machine that takes so many times as long as it is told. */
const atPace = (time: TimeFigures, pace: number): TimeFigures => ({
  ...time,
  timeS: pace * time.timeS,
  unslowedS: pace * time.unslowedS,
  timeByFeatureS: Object.fromEntries(
    Object.entries(time.timeByFeatureS).map(([row, seconds]) => [row, pace * seconds]),
  ) as TimeFigures['timeByFeatureS'],
})

/** What surfaces read of a profile. */
const treated = ({ ironing, supports, supportAngle, lineWidth }: Settings, overrides: readonly Override[]): unknown => [
  lineWidth,
  ironing,
  supports === 'off' ? supports : supportAngle,
  overrides.filter(({ values }) => values.ironing !== undefined),
]

/** What of scopes can be posted between threads. */
const dataOf = ({ settings, overrides }: Scopes): Pick<Scopes, 'settings' | 'overrides'> => ({ settings, overrides })

// biome-ignore lint/correctness/useYield: work that is done already
function* nothing(): Work<undefined> {
  return undefined
}
