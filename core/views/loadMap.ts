import { cornersOf } from '../mesh/cornersOf'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import type { Cuts } from '../physics/strength/beam'
import { type Direction, frameOf } from '../physics/strength/direction'
import { type Grip, usualGrip } from '../physics/strength/grip'
import { type AxisLoadPath, type LoadPathByAxis, loadPathAlong, loadPathByAxis } from '../physics/strength/loadPathByAxis'
import { findObliqueSections, type ObliqueSections, obliqueStrengthAt, standingAcross } from '../physics/strength/oblique'
import { ownAzimuth } from '../physics/strength/ownAzimuth'
import { type LoadKind, loadKinds, loadsAlong, type Strengths } from '../physics/strength/sectionLoads'
import { sectionReads, sectionSettings } from '../physics/strength/sectionReads'
import { type Axis, axes, type SectionSettingsOf } from '../physics/strength/sections'
import { sectionsByAxis } from '../physics/strength/strengthFigures'
import { outlinesOf } from '../physics/strength/stretches'
import { flatWalls, standingShares } from '../physics/strength/thinWalls'
import { layDown, type PredictOptions } from '../pipeline/layDown'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { type Override, Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { type KnownSetup, knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import type { Layers } from '../slicing/layers'
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

export type LoadsAlong = SectionLoads & { readonly along: readonly [number, number, number] }

/** How a candidate bears loads, section by section, and the part that bears them. */
export interface LoadMap {
  readonly axes: Readonly<Record<Axis, SectionLoads>>
  /** Along the direction that was asked for, and which way that is. */
  readonly free?: LoadsAlong
  /** Along the level directions that are a turned part's own. */
  readonly own: readonly (LoadsAlong & { readonly azimuthDeg: number })[]
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
  const predicted = predict(part, placement, setup, values, shared)
  const { single, mesh, layers } = layDown(part, placement, setup, values, shared)
  const { direction, grip = usualGrip } = options.load ?? {}
  const read: LoadedPart = { path: single, layers, known: knownSetup(setup), predicted, overrides: options.overrides, grip }
  const outlines = outlinesOf(layers)
  const top = layers.top.at(-1) ?? 0
  const loadPath = loadPathByAxis(outlines, grip)
  const loads = loadsByAxis(read, loadPath)
  const across = (direction: Direction): LoadsAlong => {
    const limbs = loadPathAlong(outlines, direction, grip)
    const cuts = findObliqueSections(single, direction, settingsOf(read), limbs)
    return { ...masked(obliqueLoads(read, cuts, direction), limbs, top), along: frameOf(direction).along }
  }
  return {
    axes: Object.fromEntries(axes.map((axis) => [axis, masked(loads[axis], loadPath[axis], top)])) as unknown as LoadMap['axes'],
    ...(direction ? { free: across(direction) } : {}),
    own: (predicted.own ?? []).map(({ azimuthDeg }) => ({ ...across({ azimuthDeg, elevationDeg: 0 }), azimuthDeg })),
    corners: cornersOf(mesh),
  }
}

const masked = (loads: SectionLoads, loadPath: AxisLoadPath | undefined, top: number): SectionLoads =>
  loadPath?.loadPath.reaches ? { ...loads, bears: bearsMask(loadPath, top) } : loads

/** What the loads of a candidate are found from. */
export interface LoadedPart {
  readonly path: Toolpath
  readonly layers: Layers
  readonly known: KnownSetup
  readonly predicted: Prediction
  readonly overrides: readonly Override[] | undefined
  readonly grip: Grip
}

const settingsOf = ({ path, predicted: { settings, mesh }, overrides, known: { constants } }: LoadedPart): SectionSettingsOf =>
  sectionSettings(new Scopes(settings, overrides, path.sets), sectionReads(constants, mesh.sizeMm[2]))

/** Loads that the sections across each axis bear, as the figures judge them. */
export function loadsByAxis(read: LoadedPart, loadPath: LoadPathByAxis): Readonly<Record<Axis, SectionLoads>> {
  const { path, layers, known, predicted, grip } = read
  const { settings, tracks } = predicted
  const { strength } = known.material
  const inLayer = withinLayers(read)
  const sections = sectionsByAxis(path, settingsOf(read), loadPath, ownAzimuth(layers.outlines))
  const flats = flatWalls(layers.outlines, settings.wallCount * settings.lineWidth)
  const across = (axis: Axis): SectionLoads => {
    const strengthAt = (section: number): number => (axis === 'z' ? strength.inLayer * tracks.bond[section]! : inLayer)
    const standing = standingShares(sections[axis], axis === 'z' ? 'upright' : 'level', settings, strength, flats)
    return told(sections[axis], { strengthAt, inLayer, shear: known.constants.strength.shear, standing }, grip)
  }
  return Object.fromEntries(axes.map((axis) => [axis, across(axis)])) as unknown as Readonly<Record<Axis, SectionLoads>>
}

function obliqueLoads(read: LoadedPart, cuts: ObliqueSections, direction: Direction): SectionLoads {
  const { known, predicted, grip } = read
  const { shear } = known.constants.strength
  const strengthAt = obliqueStrengthAt(cuts, direction, known.material.strength.inLayer, predicted.tracks.bond, shear)
  const standing = standingAcross(cuts, direction, predicted.settings, known.material)
  return told(cuts, { strengthAt, inLayer: withinLayers(read), shear, ...standing }, grip)
}

const withinLayers = ({ known, predicted }: LoadedPart): number => (1 - predicted.melt.missing) * known.material.strength.inLayer

const told = (cuts: Cuts, strengths: Strengths, grip: Grip): SectionLoads => ({
  atMm: cuts.at,
  areaMm2: cuts.area,
  loadN: Object.fromEntries(loadKinds.map((kind) => [kind, loadsAlong(cuts, kind, strengths, grip)])) as SectionLoads['loadN'],
})
