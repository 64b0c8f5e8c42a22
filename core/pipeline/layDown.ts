import { medians } from '../constants/constants'
import type { PolygonKernel } from '../geometry/polygon'
import type { Edges } from '../mesh/edges'
import { measureSize } from '../mesh/measure'
import type { Mesh } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { type Placement, place } from '../mesh/place'
import { type BeltLine, toBeltFrame } from '../mesh/tiltedBelt'
import type { MotionPrinter } from '../motion/moveChunk'
import { type Motion, motionWork } from '../motion/planMotion'
import type { LoadPlace } from '../physics/strength/purpose'
import type { Override, Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import type { Stage } from '../profile/table/setting'
import { type Regions, regionsWork } from '../regions/findRegions'
import { flowBound, type ResolvedSettings, resolveSettings, type Setup } from '../setup/resolve'
import type { Layers } from '../slicing/layers'
import { refuseImpossible } from '../slicing/refuseImpossible'
import { sliceWork } from '../slicing/slice'
import { toBeltAxes } from '../toolpath/beltAxes'
import { chooseSeams } from '../toolpath/chooseSeams'
import { copyPaths } from '../toolpath/copyPaths'
import { type LaidPath, toolpathWork } from '../toolpath/layPaths'
import type { Toolpath } from '../toolpath/toolpath'
import { InputError } from '../units/errors'
import { doAlone, type OnProgress } from '../work/doAlone'
import type { Work } from '../work/work'
import { StageCache, stageKey } from './stageCache'
import { ownOf, visibleTo } from './stageReads'

/** What a candidate depends on beside part, machine and profile. */
export interface CandidateOptions {
  /** Places where other values hold. */
  readonly overrides?: readonly Override[]
  /** Where the part is held and loaded, and along which direction, when it is none of the axes. */
  readonly load?: LoadPlace | undefined
  /** What is remembered of candidates before. */
  readonly cache?: StageCache
}

export interface PredictOptions extends CandidateOptions {
  readonly kernel: PolygonKernel
  /** Told what is being worked on: a stage, and the share of it that is done (0–1). May throw `Cancelled` to stop. */
  readonly onProgress?: OnProgress
}

/** Degrees, for a tilted printer whose record does not tell; common. */
const DEFAULT_BELT_ANGLE = 45

/** A part cut into layers. */
export interface Sliced {
  readonly resolved: ResolvedSettings
  /** In the frame of the layers: turned with the gantry on a tilted belt. */
  readonly mesh: Mesh
  /** As the part lies on the bed or belt. */
  readonly sizeMm: readonly [number, number, number]
  readonly layers: Layers
  readonly layersKey: string
}

/** A part laid out on the bed, before any motion is planned. */
export interface LaidDown extends Sliced {
  readonly regions: Regions
  readonly regionsKey: string
  /** Point at which each outermost wall begins, one a polygon. */
  readonly seams: Uint32Array
  /** One part's path, and the path of all copies. */
  readonly laid: LaidPath
  readonly single: Toolpath
  readonly path: Toolpath
  readonly pathKey: string
}

/**
 * The first half of the pipeline: mesh → layers → regions → toolpath.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export const layDown = (part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): LaidDown =>
  doAlone(layDownWork(part, placement, setup, values, options), options.kernel, options.onProgress)

function* layDownWork(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: CandidateOptions): Work<LaidDown> {
  const known = { cache: new StageCache(), ...options }
  return yield* layOutWork(yield* slicedWork(part, placement, setup, values, known), setup, known)
}

type Known = CandidateOptions & { readonly cache: StageCache }

/** mesh → layers. */
export function* slicedWork(part: Part, placement: Placement, setup: Setup, values: SettingValues, known: Known): Work<Sliced> {
  const { cache, overrides = [] } = known
  const resolved = resolveSettings(setup, values)
  const { settings } = resolved
  const { printer } = setup
  const meshKey = stageKey('mesh', part.key, placement)
  const placed = cache.get('mesh', meshKey, () => place(part.mesh, placement))
  const sizeMm = cache.get('size', meshKey, () => measureSize(placed))
  const tilt = printer.kinematics === 'tiltedBelt' ? (printer.beltAngle ?? DEFAULT_BELT_ANGLE) : undefined
  if (tilt !== undefined && settings.spiralWall === 'on')
    throw new InputError(
      'spiral-on-belt',
      'On a tilted belt no wall can rise as one line: its layers lean.',
      'spiralWall',
      'Turn the spiral wall off, or take another printer.',
    )
  const frame = tilt === undefined ? undefined : cache.get('belt', stageKey('belt', meshKey, tilt), () => toBeltFrame(placed, tilt))
  const mesh = frame?.mesh ?? placed
  refuseImpossible(frame ? measureSize(mesh) : sizeMm, settings)
  const layersKey = stageKey('layers', meshKey, [ownOf('layers', settings, overrides), tilt])
  const layers = yield* cache.getFrom('layers', layersKey, () =>
    slicedIn(frame?.belt, mesh, part.edges, visibleTo('layers', settings, overrides)),
  )
  return { resolved, mesh, sizeMm, layers, layersKey }
}

function* slicedIn(belt: BeltLine | undefined, mesh: Mesh, edges: Edges, scopes: Scopes): Work<Layers> {
  const sliced = yield* sliceWork(mesh, edges, (z) => scopes.settingsOf(scopes.ofLayer(z, belt)))
  return belt ? { ...sliced, belt } : sliced
}

/** layers → regions → toolpath. */
export function* layOutWork(sliced: Sliced, setup: Setup, { cache, overrides = [] }: Known): Work<LaidDown> {
  const { resolved, sizeMm, layers, layersKey } = sliced
  const { settings } = resolved
  const { bore } = setup.nozzle
  const own = (stage: Stage): unknown => ownOf(stage, settings, overrides)
  const regionsKey = stageKey('regions', layersKey, [own('regions'), bore])
  const regions = yield* cache.getFrom('regions', regionsKey, () => regionsWork(layers, visibleTo('regions', settings, overrides), bore))
  const pathKey = stageKey('toolpath', regionsKey, own('toolpath'))
  const scopes = visibleTo('toolpath', settings, overrides)
  const seamsKey = stageKey('seams', regionsKey, [settings.seam, seamsOfPlaces(overrides)])
  const seams = cache.get('seams', seamsKey, () => chooseSeams(layers, regions, scopes))
  const laid = yield* cache.getFrom('toolpath', pathKey, () => toolpathWork(layers, regions, seams, scopes))
  const path = cache.get('copies', pathKey, () => {
    const copied = copyPaths(laid.path, sizeMm, settings, layers.belt)
    return layers.belt ? toBeltAxes(copied, layers.belt) : copied
  })
  return { ...sliced, regions, regionsKey, seams, laid, single: laid.path, path, pathKey }
}

/** Overrides that choose seams of their own, and where. */
const seamsOfPlaces = (overrides: readonly Override[]): unknown =>
  overrides.flatMap(({ name: _, speedPercent: __, picture: ___, values: { seam }, ...place }) =>
    seam === undefined ? [] : [[place, seam]],
  )

/** Plans the motion of what was laid down. */
export const planFor = (laid: LaidDown, setup: Setup, options: PredictOptions): Motion =>
  doAlone(plannedWork(laid, setup, { cache: new StageCache(), ...options }), options.kernel, options.onProgress)

export const motionKeyOf = ({ pathKey, resolved }: LaidDown, setup: Setup, overrides: readonly Override[]): string =>
  stageKey('motion', pathKey, [ownOf('motion', resolved.settings, flowBound(overrides, resolved, setup)), motionPrinter(setup)])

/** What motion reads of a printer. */
const motionPrinter = ({ printer: { limits, cornerSchool, filamentDiameter }, constants = medians }: Setup): MotionPrinter => ({
  keeps: constants.print.acceleration,
  limits,
  cornerSchool,
  filamentDiameter,
})

/** toolpath → motion. */
export function* plannedWork(laid: LaidDown, setup: Setup, { cache, overrides = [] }: Known): Work<Motion> {
  return yield* cache.getFrom('motion', motionKeyOf(laid, setup, overrides), () =>
    motionWork(laid.path, visibleTo('motion', laid.resolved.settings, flowBound(overrides, laid.resolved, setup)), motionPrinter(setup)),
  )
}
