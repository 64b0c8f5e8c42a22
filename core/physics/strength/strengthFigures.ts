import type { Basis, Material } from '../../shelf/material'
import type { Toolpath } from '../../toolpath/toolpath'
import { type Cuts, compliance, largestOf, leastSecond, type Spans, spansOf } from './beam'
import { type Unfit, unfitFor } from './fitness'
import { usualGrip } from './grip'
import type { LoadPathByAxis } from './loadPathByAxis'
import { type LoadKind, loadKinds, loadsAlong, type Strengths } from './sectionLoads'
import { type Axis, axes, boxOf, findSections, type SectionSettingsOf, type Sections } from './sections'

export type LoadCase = `${LoadKind}${'X' | 'Y' | 'Z'}`
export const loadCases: readonly LoadCase[] = loadKinds.flatMap((kind) =>
  (['X', 'Y', 'Z'] as const).map((axis) => `${kind}${axis}` as LoadCase),
)

export interface LoadFigure {
  /** Load at which the part fails, N; not a number where sections say nothing about it. An estimate, never a rating. */
  readonly loadN: number
  readonly basis: Basis
  /** Where along the axis it fails, mm. */
  readonly weakestAtMm: number
  /** Load per mm that the part gives way where it acts, N/mm. */
  readonly stiffnessNmm: number
  /** Whether a section reaches the material's strength, the whole gives way sideways first, or a soft part by too much. */
  readonly by: 'strength' | 'buckling' | 'deflection'
  /** Why there is no number. */
  readonly unfit?: Unfit
}

export type SectionsByAxis = Readonly<Record<Axis, Sections>>

/** @param loadPath what leads from hold to load; along an axis without them everything bears */
export function sectionsByAxis(path: Toolpath, settings: SectionSettingsOf, loadPath: LoadPathByAxis = {}, turned = 0): SectionsByAxis {
  const box = boxOf(path)
  const along = (axis: Axis): Sections => findSections(path, axis, settings, box, loadPath[axis], turned)
  return { x: along('x'), y: along('y'), z: along('z') }
}

/** What of a material, and of how it was laid, decides on loads. */
export interface Bulk {
  readonly material: Pick<Material, 'strength'> & Partial<Pick<Material, 'family'>>
  /** Share of the bulk per layer; the material's own factor where they are not known. */
  readonly bonds?: Float64Array
  /** Shear strength over pull strength. */
  readonly shear: number
  /** Share of the plastic that is missing: lines are thinner than their sections by as much. */
  readonly missing?: number
  /** Share of each section that stands when it is pressed, by axis; all where nothing is told. */
  readonly standing?: Readonly<Partial<Record<Axis, Float64Array>>>
}

/**
 * Loads that the part bears along each axis. Pull: both ends are gripped. Bend: the low end is held and the far end is
 * pressed sideways; bendHigh the other way round. Three points: both ends rest on supports and the middle is pressed. Crush: both ends are pressed
 * together. Bending is always in the weakest direction.
 *
 * Strength along the layers is the material's own; pulled or bent across them, along z, it is that times the bond of each
 * layer. Pressed, layers do not come apart.
 */
export function strengthFigures(sections: SectionsByAxis, bulk: Bulk, grip = usualGrip): Record<LoadCase, LoadFigure> {
  const { bonds, material } = bulk
  const { bondFactor, inLayer } = material.strength
  const figures = {} as Record<LoadCase, LoadFigure>
  for (const axis of axes) {
    const within = (1 - (bulk.missing ?? 0)) * inLayer
    // What is missing in a layer is in its bond already.
    const strengthAt = (section: number): number => (axis === 'z' ? inLayer * (bonds?.[section] ?? bondFactor) : within)
    const standing = bulk.standing?.[axis]
    const own = figuresAlong(
      sections[axis],
      { strengthAt, inLayer: within, shear: bulk.shear, ...(standing ? { standing } : {}) },
      bulk,
      grip,
    )
    for (const kind of loadKinds) figures[`${kind}${axis.toUpperCase() as Uppercase<Axis>}`] = own[kind]
  }
  return figures
}

/** A soft part is judged by the load that moves it by this share of its arm or length. */
const SOFT = 0.1

/** Every way to load the part along the direction that it was cut across. */
export function figuresAlong(
  cuts: Cuts,
  strengths: Strengths,
  { material, missing = 0 }: Pick<Bulk, 'material' | 'missing'>,
  grip = usualGrip,
): Record<LoadKind, LoadFigure> {
  const { basis } = material.strength
  const modulus = (1 - missing) * material.strength.modulus
  const spans = spansOf(cuts, grip)
  const figure = (kind: LoadKind): LoadFigure => {
    const unfit = unfitFor(cuts, kind, spans)
    if (unfit) return { loadN: Number.NaN, basis, weakestAtMm: spans.low, stiffnessNmm: Number.NaN, by: 'strength', unfit }
    const stiffnessNmm = stiffnessOf(cuts, kind, modulus, spans)
    const weakest = weakestOf(cuts, loadsAlong(cuts, kind, strengths, grip), spans)
    const stood = kind === 'crush' ? asColumn(cuts, weakest, modulus, spans) : { ...weakest, by: 'strength' as const }
    const soft = material.family === 'flexible' ? SOFT * (spans.high - spans.low) * stiffnessNmm : Infinity
    return { ...(soft < stood.loadN ? { ...stood, loadN: soft, by: 'deflection' as const } : stood), stiffnessNmm, basis }
  }
  return Object.fromEntries(loadKinds.map((kind) => [kind, figure(kind)])) as Record<LoadKind, LoadFigure>
}

type Weakest = Pick<LoadFigure, 'loadN' | 'weakestAtMm'>

function weakestOf({ at }: Cuts, loads: Float64Array, { from, to }: Spans): Weakest {
  const i = loads.reduce((least, load, k) => (load < loads[least]! ? k : least), 0)
  return { loadN: loads[i]!, weakestAtMm: Math.min(Math.max(at[i]!, from[i]!), to[i]!) }
}

/**
 * Pressed together the whole buckles as a column of its slenderest section that is free to turn at both ends, π²·E·I/L² (Euler);
 * one between slender and stout gives way by both, `F·(1 − F/4·Fe)` (Johnson's parabola; any handbook).
 */
function asColumn(cuts: Cuts, crushed: Weakest, modulus: number, { low, high, from, to }: Spans): Weakest & Pick<LoadFigure, 'by'> {
  const judged = [...cuts.at.keys()].filter((i) => to[i]! > from[i]! + 1e-9)
  const slender = judged.reduce((least, i) => (leastSecond(cuts, i) < leastSecond(cuts, least) ? i : least), judged[0]!)
  const euler = (Math.PI ** 2 * modulus * leastSecond(cuts, slender)) / (high - low) ** 2
  if (euler < crushed.loadN / 2) return { loadN: euler, weakestAtMm: cuts.at[slender]!, by: 'buckling' }
  return { ...crushed, loadN: crushed.loadN * (1 - crushed.loadN / (4 * euler)), by: 'strength' }
}

/**
 * F/δ where the load acts, by unit load: of a rod δ = ∫ F/(E·A), bent δ = ∫ F·M²/(E·I) with M the moment of 1 N (F·L³/3EI for an
 * even cantilever), in the direction in which the whole gives way most.
 */
function stiffnessOf(cuts: Cuts, kind: LoadKind, modulus: number, spans: Spans): number {
  const { low, high, from, to } = spans
  if (kind === 'pull' || kind === 'crush') {
    let given = 0
    for (let i = 0; i < cuts.at.length; i++) if (to[i]! > from[i]!) given += (to[i]! - from[i]!) / (modulus * cuts.area[i]!)
    return 1 / given
  }
  const arm = (s: number): number => (kind === 'bend' ? high - s : kind === 'bendHigh' ? s - low : Math.min(s - low, high - s) / 2)
  const given: [number, number, number] = [0, 0, 0]
  for (let i = 0; i < cuts.at.length; i++) {
    if (!(to[i]! > from[i]!)) continue
    const own = compliance(cuts, i)
    for (const k of [0, 1, 2] as const) given[k] += (arm((from[i]! + to[i]!) / 2) ** 2 * (to[i]! - from[i]!) * own[k]) / modulus
  }
  return 1 / largestOf(given).value
}
