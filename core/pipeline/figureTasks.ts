import type { Constants } from '../constants/constants'
import type { Contours } from '../geometry/contours'
import type { Mesh } from '../mesh/mesh'
import type { Motion } from '../motion/planMotion'
import { timeFigures } from '../motion/timeFigures'
import { openTravel } from '../physics/finish/strings'
import { surfaceFigures, type Treatment } from '../physics/finish/surfaceFigures'
import { unproppedTops } from '../physics/finish/unproppedTops'
import { physicsFigures } from '../physics/physicsFigures'
import type { Direction } from '../physics/strength/direction'
import type { Grip } from '../physics/strength/grip'
import { type AxisLimbs, limbsAlong, limbsByAxis } from '../physics/strength/limbsByAxis'
import { findObliqueSections } from '../physics/strength/oblique'
import { type Axis, type Box, findSections, type SectionSettings } from '../physics/strength/sections'
import { outlinesOf } from '../physics/strength/stretches'
import { layerSections } from '../physics/sway/sway'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Regions } from '../regions/findRegions'
import type { KnownSetup } from '../setup/knownSetup'
import type { Layers } from '../slicing/layers'
import { laidVolume } from '../toolpath/laidVolume'
import type { Toolpath } from '../toolpath/toolpath'
import type { Task } from '../work/work'

// The figures of a prediction that take long enough to be worked out beside each other.

const task = <I, R>(name: string, run: Task<I, R>['run']): Task<I, R> => ({ name, run })

interface OfMesh {
  readonly mesh: Mesh
  readonly layers: Layers
  readonly treatment: Treatment
  readonly finish: Constants['finish']
}
export const surfaceTask = task('surface', ({ mesh, layers, treatment, finish }: OfMesh) => surfaceFigures(mesh, layers, treatment, finish))

export const limbsTask = task('limbs', ({ layers, grip }: { readonly layers: Layers; readonly grip: Grip }) =>
  limbsByAxis(outlinesOf(layers), grip),
)

interface AcrossAxis {
  readonly path: Toolpath
  readonly axis: Axis
  readonly settings: SectionSettings
  readonly box: Box
  readonly limbs: AxisLimbs | undefined
}
export const sectionsTask = task('sections', ({ path, axis, settings, box, limbs }: AcrossAxis) =>
  findSections(path, axis, settings, box, limbs),
)

interface AcrossDirection {
  readonly path: Toolpath
  readonly layers: Layers
  readonly direction: Direction
  readonly settings: SectionSettings
  readonly grip: Grip
}
export const obliqueTask = task('oblique', ({ path, layers, direction, settings, grip }: AcrossDirection) =>
  findObliqueSections(path, direction, settings, limbsAlong(outlinesOf(layers), direction, grip)),
)

interface Timed {
  readonly path: Toolpath
  readonly motion: Motion
}
export const timeTask = task('time', ({ path, motion, leastS }: Timed & { readonly leastS: number }) => timeFigures(path, motion, leastS))

interface Physical extends Timed {
  readonly layers: Layers
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly setup: KnownSetup
}
export const physicsTask = task('physics', ({ settings, overrides, ...input }: Physical) =>
  physicsFigures({ ...input, scopes: new Scopes(settings, overrides) }),
)

export const volumeTask = task('volume', ({ path }: { readonly path: Toolpath }) => laidVolume(path))

export const uprightTask = task('upright', ({ path }: { readonly path: Toolpath }) => layerSections(path))

interface Travelled {
  readonly path: Toolpath
  readonly outlines: Contours
  readonly leastMm: number
}
export const openTravelTask = task('openTravel', ({ path, outlines, leastMm }: Travelled) => openTravel(path, outlines, leastMm))

interface Tops {
  readonly layers: Layers
  readonly regions: Regions
  readonly path: Toolpath
  readonly lineWidth: number
}
export const topsTask = task('tops', ({ layers, regions, path, lineWidth }: Tops, { kernel }) =>
  unproppedTops(layers, regions, path, lineWidth, kernel),
)
