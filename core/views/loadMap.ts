import { cornersOf } from '../mesh/cornersOf'
import type { Placement } from '../mesh/place'
import { layDown, type Part, type PredictOptions, predict } from '../predict'
import type { Setup } from '../profile/resolve'
import type { Settings, SettingValues } from '../profile/settings'
import { StageCache } from '../stageCache'
import { type Grip, usualGrip } from '../strength/grip'
import { limbsByAxis, type Outlines, outlinesOf } from '../strength/limbs'
import { findObliqueSections, frameOf, obliqueStrengthAt } from '../strength/oblique'
import { type Axis, axes } from '../strength/sections'
import { type Cuts, type LoadKind, loadKinds, loadsAlong, type StrengthAt, sectionsByAxis } from '../strength/strengthFigures'
import type { Toolpath } from '../toolpath/toolpath'

/** Across one direction: where, how large, and the load that each section would bear by itself, N; infinite where it bears none of it. */
export interface SectionLoads {
  readonly atMm: Float64Array
  /** Of an equal solid section. */
  readonly areaMm2: Float64Array
  readonly loadN: Readonly<Record<LoadKind, Float64Array>>
}

/** How a candidate bears loads, section by section, and the part that bears them. */
export interface LoadMap {
  readonly axes: Readonly<Record<Axis, SectionLoads>>
  /** Along the direction that was asked for, and which way that is. */
  readonly free?: SectionLoads & { readonly along: readonly [number, number, number] }
  /** Nine coordinates a facet of the part as it is laid, mm. */
  readonly corners: Float32Array
}

/**
 * What a prediction before it has computed is taken from the cache.
 *
 * @throws InputError when the part cannot be worked on at all
 */
export function loadMap(part: Part, placement: Placement, setup: Setup, values: SettingValues, options: PredictOptions): LoadMap {
  const shared = { ...options, cache: options.cache ?? new StageCache() }
  const { tracks, settings } = predict(part, placement, setup, values, shared)
  const { single, mesh, layers } = layDown(part, placement, setup, values, shared)
  const { inLayer } = setup.material.strength
  const { direction, grip } = options.load ?? {}
  const outlines = outlinesOf(layers)
  const free = direction && findObliqueSections(single, direction, settings, { outlines, grip })
  return {
    axes: loadsByAxis(single, settings, outlines, inLayer, tracks.bond, grip),
    ...(free
      ? {
          free: { ...told(free, obliqueStrengthAt(free, direction, inLayer, tracks.bond), inLayer, grip), along: frameOf(direction).along },
        }
      : {}),
    corners: cornersOf(mesh),
  }
}

/** Loads that the sections across each axis bear, as the figures judge them. */
export function loadsByAxis(
  path: Toolpath,
  settings: Settings,
  outlines: Outlines,
  inLayer: number,
  bonds: Float64Array,
  grip?: Grip,
): LoadMap['axes'] {
  const sections = sectionsByAxis(path, settings, limbsByAxis(outlines, grip ?? usualGrip))
  const across = (axis: Axis): SectionLoads =>
    told(sections[axis], (section) => (axis === 'z' ? inLayer * bonds[section]! : inLayer), inLayer, grip)
  return Object.fromEntries(axes.map((axis) => [axis, across(axis)])) as unknown as LoadMap['axes']
}

const told = (cuts: Cuts, strengthAt: StrengthAt, inLayer: number, grip: Grip | undefined): SectionLoads => ({
  atMm: cuts.at,
  areaMm2: cuts.area,
  loadN: Object.fromEntries(loadKinds.map((kind) => [kind, loadsAlong(cuts, kind, strengthAt, inLayer, grip)])) as SectionLoads['loadN'],
})
