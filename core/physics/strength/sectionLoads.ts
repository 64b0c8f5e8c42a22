import { bentFactor, type Cuts, offLoadLine, type Spans, sectionModulus, spansOf, stressPerMoment } from './beam'
import type { Grip } from './grip'

/** Ways to load a part along an axis. */
export const loadKinds = ['pull', 'bend', 'bendHigh', 'threePoint', 'crush'] as const
export type LoadKind = (typeof loadKinds)[number]

/** MPa of each section. */
export type StrengthAt = (section: number) => number

export interface Strengths {
  /** Of what is pulled or bent. */
  readonly strengthAt: StrengthAt
  /** Of what is pressed: layers do not come apart. */
  readonly inLayer: number
  /** Shear strength over pull strength. */
  readonly shear: number
  /** Share of each section that stands when it is pressed; all where nothing is told. */
  readonly standing?: Float64Array
}

/** Largest shear stress over the mean in a rectangle (any handbook). */
const SHEAR_PEAK = 1.5

/**
 * Load that each section would bear by itself under a way to load the part, N: what is applied over it is the stress ratio.
 * Infinite where a section is not judged or bears no part of the load. Buckling is the whole's and not told here.
 *
 * Pull and crush: `1/F = (1/A + e·c/I)/σ`, e how far the section's centroid lies off the line from hold to load. Bend: a
 * cantilever held at its low end, `F = σ·I/(c·arm)`; bendHigh the other way round. Three points: on two supports, pressed in the
 * middle. No short arm bears more than the section's shear, `A·τ/1.5` (Euler–Bernoulli; any handbook).
 */
export function loadsAlong(cuts: Cuts, kind: LoadKind, strengths: Strengths, grip: Grip): Float64Array {
  const spans = spansOf(cuts, grip)
  const loadAt = kind === 'pull' || kind === 'crush' ? endLoad(cuts, kind, strengths, spans) : bendLoad(cuts, kind, strengths, spans)
  return cuts.at.map((_, i) => (spans.to[i]! > spans.from[i]! + 1e-9 ? loadAt(i) : Infinity))
}

function endLoad(cuts: Cuts, kind: 'pull' | 'crush', { strengthAt, inLayer, standing }: Strengths, spans: Spans): StrengthAt {
  const [u, v] = offLoadLine(cuts, spans)
  return (i) => {
    const strength = kind === 'pull' ? strengthAt(i) : inLayer * (standing?.[i] ?? 1)
    if (!(cuts.area[i]! > 0)) return 0
    const off = Math.hypot(u[i]!, v[i]!)
    const bent = off > 0 ? bentFactor(cuts, i) * stressPerMoment(cuts, i, u[i]!, v[i]!) : 0
    return strength / (1 / cuts.area[i]! + bent)
  }
}

function bendLoad(cuts: Cuts, kind: Exclude<LoadKind, 'pull' | 'crush'>, { strengthAt, shear }: Strengths, spans: Spans): StrengthAt {
  return (i) => {
    const arm = armsOf(spans, kind)(i)
    const force = kind === 'threePoint' ? 2 : 1
    return strengthAt(i) * Math.min(sectionModulus(cuts, i) / arm, (force * cuts.area[i]! * shear) / SHEAR_PEAK)
  }
}

/** Moment of 1 N where a section is bent most, mm. */
export function armsOf({ low, high, from, to }: Spans, kind: Exclude<LoadKind, 'pull' | 'crush'>): (section: number) => number {
  if (kind === 'bend') return (i) => high - from[i]!
  if (kind === 'bendHigh') return (i) => to[i]! - low
  const middle = (low + high) / 2
  return (i) => Math.min(...[Math.min(Math.max(middle, from[i]!), to[i]!)].flatMap((at) => [at - low, high - at])) / 2
}
