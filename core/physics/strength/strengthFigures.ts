import type { Basis, Material } from '../../shelf/material'
import type { Toolpath } from '../../toolpath/toolpath'
import { type Grip, grips, usualGrip } from './grip'
import type { LoadPathByAxis } from './loadPathByAxis'
import { type Axis, axes, boxOf, findSections, type SectionSettingsOf, type Sections } from './sections'

/** Ways to load a part along an axis. */
export const loadKinds = ['pull', 'bend', 'bendHigh', 'threePoint', 'crush'] as const
export type LoadKind = (typeof loadKinds)[number]
export type LoadCase = `${LoadKind}${'X' | 'Y' | 'Z'}`
export const loadCases: readonly LoadCase[] = loadKinds.flatMap((kind) =>
  (['X', 'Y', 'Z'] as const).map((axis) => `${kind}${axis}` as LoadCase),
)

export interface LoadFigure {
  /** Load at which the part fails, N. An estimate, never a rating. */
  readonly loadN: number
  readonly basis: Basis
  /** Where along the axis it fails, mm. */
  readonly weakestAtMm: number
  /** Load per mm that the part gives way where it acts, N/mm. */
  readonly stiffnessNmm: number
  /** Whether a section reaches the material's strength, or the whole gives way sideways first. */
  readonly by: 'strength' | 'buckling'
}

export type SectionsByAxis = Readonly<Record<Axis, Sections>>

/** @param loadPath what leads from hold to load; along an axis without them everything bears */
export function sectionsByAxis(path: Toolpath, settings: SectionSettingsOf, loadPath: LoadPathByAxis = {}): SectionsByAxis {
  const box = boxOf(path)
  const along = (axis: Axis): Sections => findSections(path, axis, settings, box, loadPath[axis])
  return { x: along('x'), y: along('y'), z: along('z') }
}

/**
 * Loads that the part bears along each axis. Pull: both ends are gripped. Bend: the low end is held and the far end is
 * pressed sideways; bendHigh the other way round. Three points: both ends rest on supports and the middle is pressed. Crush: both ends are pressed
 * together. Bending is always in the weaker of the two directions.
 *
 * Strength along the layers is the material's own; pulled or bent across them, along z, it is that times the bond of each
 * layer. Pressed, layers do not come apart.
 *
 * @param bonds share of the bulk per layer; the material's own factor where they are not known
 * @param missing share of the plastic that is missing: lines are thinner than their sections by as much
 */
export function strengthFigures(
  sections: SectionsByAxis,
  given: Pick<Material, 'strength'>,
  bonds?: Float64Array,
  grip = usualGrip,
  missing = 0,
): Record<LoadCase, LoadFigure> {
  const { bondFactor } = given.strength
  const material = thinned(given, missing)
  const { inLayer } = material.strength
  const figures = {} as Record<LoadCase, LoadFigure>
  for (const axis of axes) {
    // What is missing in a layer is in its bond already.
    const strengthAt = (section: number): number => (axis === 'z' ? given.strength.inLayer * (bonds?.[section] ?? bondFactor) : inLayer)
    const own = figuresAlong(sections[axis], strengthAt, material, grip)
    for (const kind of loadKinds) figures[`${kind}${axis.toUpperCase() as Uppercase<Axis>}`] = own[kind]
  }
  return figures
}

const thinned = ({ strength }: Pick<Material, 'strength'>, missing: number): Pick<Material, 'strength'> => ({
  strength: { ...strength, inLayer: (1 - missing) * strength.inLayer, modulus: (1 - missing) * strength.modulus },
})

/** Every way to load the part along the direction that it was cut across; `strengthAt` tells MPa for each section. */
export function figuresAlong(
  sections: Cuts,
  strengthAt: StrengthAt,
  { strength: { inLayer, modulus, basis } }: Pick<Material, 'strength'>,
  grip = usualGrip,
): Record<LoadKind, LoadFigure> {
  const along = stiffnessAlong(sections, modulus, grip)
  const turned = reversed(sections)
  const turnedGrip = { heldTo: 1 - grip.loadedFrom, loadedFrom: 1 - grip.heldTo }
  const high = bendLoad(turned, (section) => strengthAt(sections.at.length - 1 - section), turnedGrip)
  const byStrength = { by: 'strength', basis } as const
  return {
    pull: { ...pullLoad(sections, strengthAt, grip), stiffnessNmm: along, ...byStrength },
    bend: { ...bendLoad(sections, strengthAt, grip), stiffnessNmm: bendStiffness(sections, modulus, grip), ...byStrength },
    bendHigh: {
      loadN: high.loadN,
      weakestAtMm: -high.weakestAtMm,
      stiffnessNmm: bendStiffness(turned, modulus, turnedGrip),
      ...byStrength,
    },
    threePoint: {
      ...threePointLoad(sections, strengthAt, grip),
      stiffnessNmm: threePointStiffness(sections, modulus, grip),
      ...byStrength,
    },
    crush: { ...crushLoad(sections, inLayer, modulus, grip), stiffnessNmm: along, basis },
  }
}

/** Sections without the name of their axis. */
export type Cuts = Omit<Sections, 'axis'>

/** The same part seen from its other end. */
const reversed = ({ at, area, second, reach }: Cuts): Cuts => ({
  at: at.toReversed().map((value) => -value),
  area: area.toReversed(),
  second: [second[0].toReversed(), second[1].toReversed()],
  reach: [reach[0].toReversed(), reach[1].toReversed()],
})

type Weakest = Pick<LoadFigure, 'loadN' | 'weakestAtMm'>
export type StrengthAt = (section: number) => number

/** Load that each section by itself would bear, N. */
type LoadAt = (section: number) => number

const atPull =
  (sections: Cuts, strengthAt: StrengthAt): LoadAt =>
  (i) =>
    strengthAt(i) * sections.area[i]!

const atBend = (sections: Cuts, strengthAt: StrengthAt, grip: Grip): LoadAt => {
  const { high } = grips(sections, grip)
  return (i) => overArm(strengthAt(i) * sectionModulus(sections, i), high - sections.at[i]!)
}

const atThreePoint = (sections: Cuts, strengthAt: StrengthAt, grip: Grip): LoadAt => {
  const { low, high } = grips(sections, grip)
  return (i) => overArm(strengthAt(i) * sectionModulus(sections, i), Math.min(sections.at[i]! - low, high - sections.at[i]!) / 2)
}

const overArm = (moment: number, arm: number): number => (arm > 0 ? moment / arm : Infinity)

/**
 * Load that each section would bear by itself under a way to load the part, N: what is applied over it is the stress ratio.
 * Infinite where a section is not judged or bears no part of the load. Buckling is the whole's and not told here.
 */
export function loadsAlong(sections: Cuts, kind: LoadKind, strengthAt: StrengthAt, inLayer: number, grip = usualGrip): Float64Array {
  const { low, high } = grips(sections, grip)
  if (kind === 'bendHigh') {
    const last = sections.at.length - 1
    const turnedGrip = { heldTo: 1 - grip.loadedFrom, loadedFrom: 1 - grip.heldTo }
    return loadsAlong(reversed(sections), 'bend', (i) => strengthAt(last - i), inLayer, turnedGrip).reverse()
  }
  const loadAt = {
    pull: () => atPull(sections, strengthAt),
    bend: () => atBend(sections, strengthAt, grip),
    threePoint: () => atThreePoint(sections, strengthAt, grip),
    crush: () => atPull(sections, () => inLayer),
  }[kind]()
  return sections.at.map((at, i) => (isBetween(at, low, high) ? loadAt(i) : Infinity))
}

/** σ = F/A: the smallest section between the grips governs. */
export const pullLoad = (sections: Cuts, strengthAt: StrengthAt, grip = usualGrip): Weakest =>
  weakestBetweenGrips(sections, grip, atPull(sections, strengthAt))

/** Cantilever: M = F·(distance to the load), σ = M·c/I (Euler–Bernoulli; any handbook). */
export const bendLoad = (sections: Cuts, strengthAt: StrengthAt, grip = usualGrip): Weakest =>
  weakestBetweenGrips(sections, grip, atBend(sections, strengthAt, grip))

/** On two supports, pressed in the middle: M = F/2 · distance to the nearer support (any handbook). */
export const threePointLoad = (sections: Cuts, strengthAt: StrengthAt, grip = usualGrip): Weakest =>
  weakestBetweenGrips(sections, grip, atThreePoint(sections, strengthAt, grip))

/**
 * Pressed together: the smallest section crushes, or the whole buckles as a column of its slenderest section that is free to
 * turn at both ends, F = π²·E·I/L² (Euler); whichever comes first.
 */
export function crushLoad(sections: Cuts, strength: number, modulus: number, grip = usualGrip): Weakest & Pick<LoadFigure, 'by'> {
  const crushed = weakestBetweenGrips(
    sections,
    grip,
    atPull(sections, () => strength),
  )
  const { low, high } = grips(sections, grip)
  const slender = weakestBetweenGrips(sections, grip, (i) => Math.min(sections.second[0][i]!, sections.second[1][i]!))
  const buckles = high > low ? (Math.PI ** 2 * modulus * slender.loadN) / (high - low) ** 2 : Infinity
  return buckles < crushed.loadN ? { loadN: buckles, weakestAtMm: slender.weakestAtMm, by: 'buckling' } : { ...crushed, by: 'strength' }
}

/** F/δ of a rod whose sections are springs in a row: δ = Σ F·l/(E·A). */
function stiffnessAlong(sections: Cuts, modulus: number, grip: Grip): number {
  return 1 / sumBetweenGrips(sections, grip, (i, length) => length / (modulus * sections.area[i]!))
}

/** F/δ at the end of a cantilever: δ = ∫ F·x²/(E·I) dx, x from the load (unit load; F·L³/3EI for an even beam). */
export function bendStiffness(sections: Cuts, modulus: number, grip = usualGrip): number {
  const { high } = grips(sections, grip)
  return stiffestOfWeaker(sections, modulus, grip, (at) => high - at)
}

/** F/δ in the middle of a beam on two supports: the unit load's moment is half the distance to the nearer support. */
export function threePointStiffness(sections: Cuts, modulus: number, grip = usualGrip): number {
  const { low, high } = grips(sections, grip)
  return stiffestOfWeaker(sections, modulus, grip, (at) => Math.min(at - low, high - at) / 2)
}

/** Stiffness in the direction that gives way more. */
function stiffestOfWeaker(sections: Cuts, modulus: number, grip: Grip, armAt: (at: number) => number): number {
  const stiffness = ([0, 1] as const).map(
    (k) => 1 / sumBetweenGrips(sections, grip, (i, length) => (armAt(sections.at[i]!) ** 2 * length) / (modulus * sections.second[k][i]!)),
  )
  return Math.min(...stiffness)
}

/** I/c in the weaker direction, mm³. */
const sectionModulus = ({ second, reach }: Cuts, i: number): number =>
  Math.min(...([0, 1] as const).map((k) => (reach[k][i]! > 0 ? second[k][i]! / reach[k][i]! : 0)))

function sumBetweenGrips(sections: Cuts, grip: Grip, of: (section: number, length: number) => number): number {
  const { low, high } = grips(sections, grip)
  const { at } = sections
  let sum = 0
  for (let i = 0; i < at.length; i++) {
    // A section stands for half the way to its neighbours, as far as that lies between the grips.
    const from = Math.max(low, i === 0 ? low : (at[i - 1]! + at[i]!) / 2)
    const to = Math.min(high, i === at.length - 1 ? high : (at[i]! + at[i + 1]!) / 2)
    if (to > from) sum += of(i, to - from)
  }
  return sum
}

const isBetween = (at: number, low: number, high: number): boolean => at >= low - 1e-9 && at <= high + 1e-9

function weakestBetweenGrips(sections: Cuts, grip: Grip, loadAt: (section: number) => number): Weakest {
  const { low, high } = grips(sections, grip)
  let weakest: Weakest = { loadN: Infinity, weakestAtMm: 0 }
  for (let i = 0; i < sections.at.length; i++) {
    if (!isBetween(sections.at[i]!, low, high)) continue
    const load = loadAt(i)
    if (load < weakest.loadN) weakest = { loadN: load, weakestAtMm: sections.at[i]! }
  }
  return Number.isFinite(weakest.loadN) ? weakest : { loadN: 0, weakestAtMm: low }
}
