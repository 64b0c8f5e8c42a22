import type { Basis, Material } from '../shelf/material'
import type { Toolpath } from '../toolpath/toolpath'
import { type Axis, axes, findSections, type SectionSettings, type Sections } from './sections'

export const loadCases = ['pullX', 'pullY', 'pullZ', 'bendX', 'bendY', 'bendZ'] as const
export type LoadCase = (typeof loadCases)[number]

export interface LoadFigure {
  /** Load at which the weakest section reaches the material's strength, N. An estimate, never a rating. */
  readonly loadN: number
  readonly basis: Basis
  /** Where along the axis that section lies, mm. */
  readonly weakestAtMm: number
}

/** A load is brought in, and the part held, over this share of its length at each end; sections there are not judged. */
export const GRIP_SHARE = 0.1

export type SectionsByAxis = Readonly<Record<Axis, Sections>>

export const sectionsByAxis = (path: Toolpath, settings: SectionSettings): SectionsByAxis => ({
  x: findSections(path, 'x', settings),
  y: findSections(path, 'y', settings),
  z: findSections(path, 'z', settings),
})

/**
 * Loads that the part bears in pull and in bending along each axis. Pull: both ends are gripped. Bending: the low end is
 * held and the far end is pressed sideways, in the weaker of the two directions.
 *
 * Strength along the layers is the material's own; across them, along z, it is that times the bond of each layer.
 *
 * @param bonds share of the bulk per layer; the material's own factor where they are not known
 */
export function strengthFigures(
  sections: SectionsByAxis,
  material: Pick<Material, 'strength'>,
  bonds?: Float64Array,
): Record<LoadCase, LoadFigure> {
  const figures = {} as Record<LoadCase, LoadFigure>
  for (const axis of axes) {
    const { inLayer, bondFactor, basis } = material.strength
    const strengthAt = (section: number): number => (axis === 'z' ? inLayer * (bonds?.[section] ?? bondFactor) : inLayer)
    const name = axis.toUpperCase() as Uppercase<Axis>
    figures[`pull${name}`] = { ...pullLoad(sections[axis], strengthAt), basis }
    figures[`bend${name}`] = { ...bendLoad(sections[axis], strengthAt), basis }
  }
  return figures
}

type Weakest = Pick<LoadFigure, 'loadN' | 'weakestAtMm'>

/** σ = F/A: the smallest section between the grips governs. */
export function pullLoad(sections: Sections, strengthAt: (section: number) => number): Weakest {
  return weakestBetweenGrips(sections, (i) => strengthAt(i) * sections.area[i]!)
}

/** Cantilever: M = F·(distance to the load), σ = M·c/I (Euler–Bernoulli; any handbook). */
export function bendLoad(sections: Sections, strengthAt: (section: number) => number): Weakest {
  const { high } = grips(sections)
  return weakestBetweenGrips(sections, (i) => {
    const arm = high - sections.at[i]!
    const modulus = Math.min(
      ...[0, 1].map((k) => (sections.reach[k as 0 | 1][i]! > 0 ? sections.second[k as 0 | 1][i]! / sections.reach[k as 0 | 1][i]! : 0)),
    )
    return arm > 0 ? (strengthAt(i) * modulus) / arm : Infinity
  })
}

function grips({ at }: Sections): { low: number; high: number } {
  const first = at[0]!
  const length = at[at.length - 1]! - first
  return { low: first + GRIP_SHARE * length, high: first + (1 - GRIP_SHARE) * length }
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
