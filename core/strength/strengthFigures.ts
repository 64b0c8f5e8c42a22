import type { Basis, Material } from '../shelf/material'
import type { Toolpath } from '../toolpath/toolpath'
import { type Axis, axes, boxOf, findSections, type SectionSettings, type Sections } from './sections'

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

/** A load is brought in, and the part held, over this share of its length at each end; sections there are not judged. */
export const GRIP_SHARE = 0.1

export type SectionsByAxis = Readonly<Record<Axis, Sections>>

export function sectionsByAxis(path: Toolpath, settings: SectionSettings): SectionsByAxis {
  const box = boxOf(path)
  const along = (axis: Axis): Sections => findSections(path, axis, settings, box)
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
 */
export function strengthFigures(
  sections: SectionsByAxis,
  material: Pick<Material, 'strength'>,
  bonds?: Float64Array,
): Record<LoadCase, LoadFigure> {
  const { inLayer, bondFactor, modulus, basis } = material.strength
  const figures = {} as Record<LoadCase, LoadFigure>
  for (const axis of axes) {
    const strengthAt = (section: number): number => (axis === 'z' ? inLayer * (bonds?.[section] ?? bondFactor) : inLayer)
    const name = axis.toUpperCase() as Uppercase<Axis>
    const own = sections[axis]
    const along = stiffnessAlong(own, modulus)
    figures[`pull${name}`] = { ...pullLoad(own, strengthAt), stiffnessNmm: along, by: 'strength', basis }
    figures[`bend${name}`] = { ...bendLoad(own, strengthAt), stiffnessNmm: bendStiffness(own, modulus), by: 'strength', basis }
    const turned = reversed(own)
    const high = bendLoad(turned, (section) => strengthAt(own.at.length - 1 - section))
    figures[`bendHigh${name}`] = {
      loadN: high.loadN,
      weakestAtMm: -high.weakestAtMm,
      stiffnessNmm: bendStiffness(turned, modulus),
      by: 'strength',
      basis,
    }
    figures[`threePoint${name}`] = {
      ...threePointLoad(own, strengthAt),
      stiffnessNmm: threePointStiffness(own, modulus),
      by: 'strength',
      basis,
    }
    figures[`crush${name}`] = { ...crushLoad(own, inLayer, modulus), stiffnessNmm: along, basis }
  }
  return figures
}

/** The same part seen from its other end. */
const reversed = ({ axis, at, area, second, reach }: Sections): Sections => ({
  axis,
  at: at.toReversed().map((value) => -value),
  area: area.toReversed(),
  second: [second[0].toReversed(), second[1].toReversed()],
  reach: [reach[0].toReversed(), reach[1].toReversed()],
})

type Weakest = Pick<LoadFigure, 'loadN' | 'weakestAtMm'>
type StrengthAt = (section: number) => number

/** σ = F/A: the smallest section between the grips governs. */
export function pullLoad(sections: Sections, strengthAt: StrengthAt): Weakest {
  return weakestBetweenGrips(sections, (i) => strengthAt(i) * sections.area[i]!)
}

/** Cantilever: M = F·(distance to the load), σ = M·c/I (Euler–Bernoulli; any handbook). */
export function bendLoad(sections: Sections, strengthAt: StrengthAt): Weakest {
  const { high } = grips(sections)
  return weakestBetweenGrips(sections, (i) => {
    const arm = high - sections.at[i]!
    return arm > 0 ? (strengthAt(i) * sectionModulus(sections, i)) / arm : Infinity
  })
}

/** On two supports, pressed in the middle: M = F/2 · distance to the nearer support (any handbook). */
export function threePointLoad(sections: Sections, strengthAt: StrengthAt): Weakest {
  const { low, high } = grips(sections)
  return weakestBetweenGrips(sections, (i) => {
    const arm = Math.min(sections.at[i]! - low, high - sections.at[i]!) / 2
    return arm > 0 ? (strengthAt(i) * sectionModulus(sections, i)) / arm : Infinity
  })
}

/**
 * Pressed together: the smallest section crushes, or the whole buckles as a column of its slenderest section that is free to
 * turn at both ends, F = π²·E·I/L² (Euler); whichever comes first.
 */
export function crushLoad(sections: Sections, strength: number, modulus: number): Weakest & Pick<LoadFigure, 'by'> {
  const crushed = weakestBetweenGrips(sections, (i) => strength * sections.area[i]!)
  const { low, high } = grips(sections)
  const slender = weakestBetweenGrips(sections, (i) => Math.min(sections.second[0][i]!, sections.second[1][i]!))
  const buckles = high > low ? (Math.PI ** 2 * modulus * slender.loadN) / (high - low) ** 2 : Infinity
  return buckles < crushed.loadN ? { loadN: buckles, weakestAtMm: slender.weakestAtMm, by: 'buckling' } : { ...crushed, by: 'strength' }
}

/** F/δ of a rod whose sections are springs in a row: δ = Σ F·l/(E·A). */
function stiffnessAlong(sections: Sections, modulus: number): number {
  return 1 / sumBetweenGrips(sections, (i, length) => length / (modulus * sections.area[i]!))
}

/** F/δ at the end of a cantilever: δ = ∫ F·x²/(E·I) dx, x from the load (unit load; F·L³/3EI for an even beam). */
export function bendStiffness(sections: Sections, modulus: number): number {
  const { high } = grips(sections)
  return stiffestOfWeaker(sections, modulus, (at) => high - at)
}

/** F/δ in the middle of a beam on two supports: the unit load's moment is half the distance to the nearer support. */
export function threePointStiffness(sections: Sections, modulus: number): number {
  const { low, high } = grips(sections)
  return stiffestOfWeaker(sections, modulus, (at) => Math.min(at - low, high - at) / 2)
}

/** Stiffness in the direction that gives way more. */
function stiffestOfWeaker(sections: Sections, modulus: number, armAt: (at: number) => number): number {
  const stiffness = ([0, 1] as const).map(
    (k) => 1 / sumBetweenGrips(sections, (i, length) => (armAt(sections.at[i]!) ** 2 * length) / (modulus * sections.second[k][i]!)),
  )
  return Math.min(...stiffness)
}

/** I/c in the weaker direction, mm³. */
const sectionModulus = ({ second, reach }: Sections, i: number): number =>
  Math.min(...([0, 1] as const).map((k) => (reach[k][i]! > 0 ? second[k][i]! / reach[k][i]! : 0)))

function sumBetweenGrips(sections: Sections, of: (section: number, length: number) => number): number {
  const { low, high } = grips(sections)
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

/** Sections are told by their middles; the part goes on for half a section beyond the first and the last. */
function grips({ at }: Sections): { low: number; high: number } {
  const last = at.length - 1
  const start = at[0]! - (last > 0 ? at[1]! - at[0]! : 0) / 2
  const length = at[last]! + (last > 0 ? at[last]! - at[last - 1]! : 0) / 2 - start
  return { low: start + GRIP_SHARE * length, high: start + (1 - GRIP_SHARE) * length }
}

function weakestBetweenGrips(sections: Sections, loadAt: (section: number) => number): Weakest {
  const { low, high } = grips(sections)
  let weakest: Weakest = { loadN: Infinity, weakestAtMm: 0 }
  for (let i = 0; i < sections.at.length; i++) {
    if (sections.at[i]! < low - 1e-9 || sections.at[i]! > high + 1e-9) continue
    const load = loadAt(i)
    if (load < weakest.loadN) weakest = { loadN: load, weakestAtMm: sections.at[i]! }
  }
  return Number.isFinite(weakest.loadN) ? weakest : { loadN: 0, weakestAtMm: low }
}
