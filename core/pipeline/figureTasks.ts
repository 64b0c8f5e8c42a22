import type { Constants } from '../constants/constants'
import type { Contours } from '../geometry/contours'
import type { Mesh } from '../mesh/mesh'
import type { Motion } from '../motion/planMotion'
import { timeFigures } from '../motion/timeFigures'
import { openTravel } from '../physics/finish/openTravel'
import { pictureFigures } from '../physics/finish/pictureSeen'
import { surfaceFigures, treatmentOf } from '../physics/finish/surfaceFigures'
import { unproppedTops } from '../physics/finish/unproppedTops'
import { widestCavity } from '../physics/finish/widestCavity'
import { smallestHole } from '../physics/fit/smallestHole'
import { physicsFigures } from '../physics/physicsFigures'
import type { Direction } from '../physics/strength/direction'
import type { Grip } from '../physics/strength/grip'
import { type AxisLoadPath, loadPathAlong, loadPathByAxis } from '../physics/strength/loadPathByAxis'
import { findObliqueSections } from '../physics/strength/oblique'
import { ownAzimuth } from '../physics/strength/ownAzimuth'
import { type SectionReads, sectionSettings } from '../physics/strength/sectionReads'
import { type Axis, type Box, findSections, type SectionSettingsOf } from '../physics/strength/sections'
import { outlinesOf } from '../physics/strength/stretches'
import { flatWalls } from '../physics/strength/thinWalls'
import { layerSections } from '../physics/sway/sway'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import type { KnownSetup } from '../setup/knownSetup'
import type { Layers } from '../slicing/layers'
import { laidVolume } from '../toolpath/laidVolume'
import { lineMarks } from '../toolpath/lineMarks'
import type { Toolpath } from '../toolpath/toolpath'
import type { Task } from '../work/work'

// The figures of a prediction that take long enough to be worked out beside each other.

const task = <I, R>(name: string, run: Task<I, R>['run']): Task<I, R> => ({ name, run })

interface OfMesh {
  readonly mesh: Mesh
  readonly layers: Layers
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly finish: Constants['finish']
}
export const surfaceTask = task('surface', ({ mesh, layers, settings, overrides, finish }: OfMesh) =>
  surfaceFigures(mesh, layers, treatmentOf(new Scopes(settings, overrides), layers), finish),
)

export const loadPathTask = task('loadPath', ({ layers, grip }: { readonly layers: Layers; readonly grip: Grip }) =>
  loadPathByAxis(outlinesOf(layers), grip),
)

export const azimuthTask = task('azimuth', ({ layers }: { readonly layers: Layers }) => ownAzimuth(layers.outlines))

export const holeTask = task('hole', ({ layers }: { readonly layers: Layers }) => smallestHole(layers.outlines))

export const flatsTask = task('flats', ({ layers, thickness }: { readonly layers: Layers; readonly thickness: number }) =>
  flatWalls(layers.outlines, thickness),
)

interface Sectioned {
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly reads: SectionReads
}
const sectionsIn = ({ settings, overrides, reads }: Sectioned, { sets }: Toolpath): SectionSettingsOf =>
  sectionSettings(new Scopes(settings, overrides, sets), reads)

interface AcrossAxis extends Sectioned {
  readonly path: Toolpath
  readonly axis: Axis
  readonly box: Box
  readonly loadPath: AxisLoadPath | undefined
  readonly turned: number
}
export const sectionsTask = task('sections', ({ path, axis, box, loadPath, turned, ...read }: AcrossAxis) =>
  findSections(path, axis, sectionsIn(read, path), box, loadPath, turned),
)

interface AcrossDirection extends Sectioned {
  readonly path: Toolpath
  readonly layers: Layers
  readonly direction: Direction
  readonly grip: Grip
}
export const obliqueTask = task('oblique', ({ path, layers, direction, grip, ...read }: AcrossDirection) =>
  findObliqueSections(path, direction, sectionsIn(read, path), loadPathAlong(outlinesOf(layers), direction, grip)),
)

interface Timed {
  readonly path: Toolpath
  readonly motion: Motion
}
interface TimedAs extends Timed {
  readonly settings: Settings
  readonly overrides: readonly Override[]
}
export const timeTask = task('time', ({ path, motion, settings, overrides }: TimedAs) => {
  const scopes = new Scopes(settings, overrides, path.sets)
  return timeFigures(path, motion, (scope) => scopes.settingsOf(scope).minLayerTime)
})

interface Physical extends Timed {
  readonly layers: Layers
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly setup: KnownSetup
}
export const physicsTask = task('physics', ({ settings, overrides, ...input }: Physical) =>
  physicsFigures({ ...input, scopes: new Scopes(settings, overrides, input.path.sets) }),
)

export const volumeTask = task('volume', ({ path }: { readonly path: Toolpath }) => laidVolume(path))

export const lineMarksTask = task('lineMarks', ({ path }: { readonly path: Toolpath }) => lineMarks(path))

export const uprightTask = task('upright', ({ path }: { readonly path: Toolpath }) => layerSections(path))

interface Travelled {
  readonly path: Toolpath
  readonly outlines: Contours
  readonly places: readonly (readonly [x: number, y: number])[]
  readonly leastMm: number
}
export const openTravelTask = task('openTravel', ({ path, outlines, places, leastMm }: Travelled) =>
  openTravel(path, outlines, places, leastMm),
)

interface Pictured extends TimedAs {
  readonly layers: Layers
  readonly places: readonly (readonly [x: number, y: number])[]
}
export const picturesTask = task('pictures', ({ layers, path, motion, settings, overrides, places }: Pictured) =>
  pictureFigures({ layers, path, motion, scopes: new Scopes(settings, overrides, path.sets), places }),
)

interface Tops {
  readonly layers: Layers
  readonly regions: Regions
  readonly path: Toolpath
  readonly lineWidth: number
}
export const topsTask = task('tops', ({ layers, regions, path, lineWidth }: Tops, { kernel }) => ({
  unpropped: unproppedTops(layers, regions, path, lineWidth, kernel),
  cavityMm: widestCavity(layers, regions, kernel),
}))
