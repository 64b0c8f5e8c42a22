import type { Constants } from '../constants/constants'
import { cornersOf } from '../mesh/cornersOf'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { frameOf } from '../physics/strength/direction'
import { type Grip, usualGrip } from '../physics/strength/grip'
import { type AxisLoadPath, type LoadPathByAxis, loadPathAlong, loadPathByAxis } from '../physics/strength/loadPathByAxis'
import { findObliqueSections, obliqueStrengthAt } from '../physics/strength/oblique'
import { type Axis, axes, type SectionSettingsOf } from '../physics/strength/sections'
import { type Cuts, type LoadKind, loadKinds, loadsAlong, type StrengthAt, sectionsByAxis } from '../physics/strength/strengthFigures'
import { outlinesOf } from '../physics/strength/stretches'
import { layDown, type PredictOptions } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings, SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import type { Toolpath } from '../toolpath/toolpath'
import { type BearsMask, bearsMask } from './bearsMask'

/** Across one direction: where, how large, and the load that each section would bear by itself, N; infinite where it bears none of it. */
export interface SectionLoads {
  readonly atMm: Float64Array
  /** Of an equal solid section. */
  readonly areaMm2: Float64Array
  readonly loadN: Readonly<Record<LoadKind, Float64Array>>
  /** Which parts of the sections bear; all where there is none. */
  readonly bears?: BearsMask
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
  const { constants, material } = knownSetup(setup)
  const { inLayer } = material.strength
  const { direction, grip } = options.load ?? {}
  const outlines = outlinesOf(layers)
  const top = layers.top.at(-1) ?? 0
  const loadPath = loadPathByAxis(outlines, grip ?? usualGrip)
  const inSections = sectionSettingsOf(settings, options.overrides, single, constants)
  const loads = loadsByAxis(single, inSections, loadPath, inLayer, tracks.bond, grip)
  const freeLimbs = direction && loadPathAlong(outlines, direction, grip ?? usualGrip)
  const free = direction && findObliqueSections(single, direction, inSections, freeLimbs)
  return {
    axes: Object.fromEntries(axes.map((axis) => [axis, masked(loads[axis], loadPath[axis], top)])) as unknown as LoadMap['axes'],
    ...(free
      ? {
          free: {
            ...masked(
              told(free, obliqueStrengthAt(free, direction, inLayer, tracks.bond, constants.strength.shear), inLayer, grip),
              freeLimbs,
              top,
            ),
            along: frameOf(direction).along,
          },
        }
      : {}),
    corners: cornersOf(mesh),
  }
}

const masked = (loads: SectionLoads, loadPath: AxisLoadPath | undefined, top: number): SectionLoads =>
  loadPath ? { ...loads, bears: bearsMask(loadPath, top) } : loads

/** What sections read of a candidate, in each scope of its path. */
export function sectionSettingsOf(
  settings: Settings,
  overrides: readonly Override[] | undefined,
  { sets }: Toolpath,
  { strength: { infill: infillStiffness } }: Constants,
): SectionSettingsOf {
  const scopes = new Scopes(settings, overrides, sets)
  return (scope) => ({ ...scopes.settingsOf(scope), infillStiffness })
}

/** Loads that the sections across each axis bear, as the figures judge them. */
export function loadsByAxis(
  path: Toolpath,
  settings: SectionSettingsOf,
  loadPath: LoadPathByAxis,
  inLayer: number,
  bonds: Float64Array,
  grip?: Grip,
): Readonly<Record<Axis, SectionLoads>> {
  const sections = sectionsByAxis(path, settings, loadPath)
  const across = (axis: Axis): SectionLoads =>
    told(sections[axis], (section) => (axis === 'z' ? inLayer * bonds[section]! : inLayer), inLayer, grip)
  return Object.fromEntries(axes.map((axis) => [axis, across(axis)])) as unknown as Readonly<Record<Axis, SectionLoads>>
}

const told = (cuts: Cuts, strengthAt: StrengthAt, inLayer: number, grip: Grip | undefined): SectionLoads => ({
  atMm: cuts.at,
  areaMm2: cuts.area,
  loadN: Object.fromEntries(loadKinds.map((kind) => [kind, loadsAlong(cuts, kind, strengthAt, inLayer, grip)])) as SectionLoads['loadN'],
})
