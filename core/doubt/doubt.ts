import { type FigureId, figureIds } from '../figures/table/figure'
import { statedLoad } from '../figures/table/stated'
import type { Purpose } from '../physics/strength/purpose'
import type { Prediction } from '../pipeline/predict'

/**
 * Numbers that figures rest on and that nobody has measured here: how far they may be off as a share (one standard
 * deviation), and how far once they are measured as told. Assumed, from what such numbers scatter by between spools and
 * machines.
 */
const inputs = {
  machine: { label: 'How your machine keeps its times', measure: 'Log the real time of a few prints', now: 0.07, measured: 0.02 },
  filament: { label: 'Diameter and flow of the filament', measure: 'Weigh a print against its prediction', now: 0.03, measured: 0.01 },
  flow: { label: 'Flow at which the hot end fails', measure: 'Print a flow ladder at two temperatures', now: 0.2, measured: 0.05 },
  stairs: { label: 'Roughness per layer height', measure: 'Compare a printed slope with a surface gauge', now: 0.2, measured: 0.1 },
  strength: { label: 'Strength within a layer', measure: 'Break a printed bar and weigh the load', now: 0.2, measured: 0.07 },
  bond: { label: 'Strength between layers', measure: 'Break a bar that was printed standing', now: 0.25, measured: 0.1 },
  modulus: {
    label: 'Stiffness of the material',
    measure: 'Hang a weight on a printed bar and measure how far it gives way',
    now: 0.2,
    measured: 0.07,
  },
  cooling: {
    label: 'Heat that your fan takes off',
    measure: 'Print a small tip and find the layer time at which it stays clean',
    now: 0.4,
    measured: 0.15,
  },
  push: {
    label: 'Side force of the nozzle',
    measure: 'Print a thin rod and find the height at which it feathers',
    now: 0.5,
    measured: 0.2,
  },
  ooze: { label: 'Ooze of this spool', measure: 'Dry it, then print a retraction tower', now: 0.7, measured: 0.3 },
} as const
export type DoubtfulInput = keyof typeof inputs

/** By how many per cent a figure moves for each per cent of an input. */
type Sensitivity = Partial<Readonly<Record<DoubtfulInput, number>>>

function sensitivities(p: Prediction, purpose: Purpose): Record<FigureId, Sensitivity> {
  const { materialCost, machineCost, cost } = p.filament
  const stated = statedLoad(p, purpose)
  return {
    // Where the flow limit holds, time goes with its inverse.
    time: { machine: 1, flow: p.limiters.flow },
    unslowed: { machine: 1, flow: p.limiters.flow },
    filament: { filament: 1 },
    cost: cost > 0 ? { filament: materialCost / cost, machine: machineCost / cost } : {},
    surface: { stairs: 1 },
    // d ln g / d ln u of g = 1/(1 + (u/u0)⁴).
    gloss: { flow: 4 * (1 - p.gloss.mean) },
    // Buckling goes with stiffness; layers come apart when pulled or bent across them.
    strength: stated.by === 'buckling' ? { modulus: 1 } : { strength: 1, ...(stated.acrossLayers ? { bond: 1 } : {}) },
    cooling: { cooling: 1 },
    sway: { modulus: 1, push: 1 },
    strings: { ooze: 1 },
  }
}

/** What is known already leaves its measured doubt. */
function doubtOf(input: DoubtfulInput, p: Prediction): number {
  const { now, measured } = inputs[input]
  const isKnown = (input === 'flow' && p.melt.basis === 'measured') || (input === 'strength' && p.strength.bendX.basis === 'measured')
  return isKnown ? measured : now
}

/** Share by which a figure may be off, both ways: the doubts of its inputs combined as independent (root of squares). */
export function doubt(figure: FigureId, p: Prediction, purpose: Purpose, without?: DoubtfulInput): number {
  let squares = 0
  for (const [input, per] of Object.entries(sensitivities(p, purpose)[figure]) as [DoubtfulInput, number][]) {
    const own = input === without ? Math.min(doubtOf(input, p), inputs[input].measured) : doubtOf(input, p)
    squares += (per * own) ** 2
  }
  return Math.sqrt(squares)
}

/** Smallest and largest value that a figure may well have. */
export const rangeOf = (value: number, share: number): readonly [number, number] => [value / (1 + share), value * (1 + share)]

export interface Measurement {
  readonly input: DoubtfulInput
  readonly label: string
  /** What to do. */
  readonly measure: string
  /** Share of the doubt of all figures of the lineup that it would remove, 0–1. */
  readonly removes: number
}

/** What to measure next: most worth first, over all candidates and figures alike. Nothing that is already known. */
export function whatToMeasure(predictions: readonly Prediction[], purpose: Purpose): Measurement[] {
  const total = predictions.reduce((sum, p) => sum + figureIds.reduce((s, figure) => s + doubt(figure, p, purpose), 0), 0)
  if (total === 0) return []
  return (Object.keys(inputs) as DoubtfulInput[])
    .map((input) => {
      const left = predictions.reduce((sum, p) => sum + figureIds.reduce((s, figure) => s + doubt(figure, p, purpose, input), 0), 0)
      return { input, label: inputs[input].label, measure: inputs[input].measure, removes: (total - left) / total }
    })
    .filter(({ removes }) => removes > 1e-6)
    .sort((a, b) => b.removes - a.removes)
}

/** Inputs that a figure rests on and that are in doubt, most telling first, with the share that each contributes. */
export function doubtsOf(figure: FigureId, p: Prediction, purpose: Purpose): { readonly label: string; readonly share: number }[] {
  return (Object.entries(sensitivities(p, purpose)[figure]) as [DoubtfulInput, number][])
    .map(([input, per]) => ({ label: inputs[input].label, share: per * doubtOf(input, p) }))
    .filter(({ share }) => share > 1e-3)
    .sort((a, b) => b.share - a.share)
}
