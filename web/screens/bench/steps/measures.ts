import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { formatDuration, formatForce } from '@sable/core/units/format'
import { verdicts } from '../ledger/verdicts/verdicts'

/** What the steps of a trail are measured by. */
export interface Measure {
  readonly id: string
  readonly label: string
  readonly better: 'less' | 'more' | 'neither'
  readonly of: (prediction: Prediction, purpose: Purpose) => number
  readonly shown: (value: number) => string
  /** A difference without its sign. */
  readonly changed: (value: number) => string
}

const shown: Readonly<Record<string, (value: number) => string>> = {
  time: formatDuration,
  filament: (g) => `${g.toFixed(1)} g`,
  cost: (money) => money.toFixed(2),
  surface: (um) => `${um.toFixed(1)} µm`,
  gloss: (share) => `${Math.round(100 * share)} %`,
  strength: formatForce,
}

/** Differences of time are told finer than times, so that they visibly add up. */
const changed: Readonly<Record<string, (value: number) => string>> = {
  time: (s) => (s < 59.5 ? `${s.toFixed(0)} s` : s < 3570 ? `${(s / 60).toFixed(1)} min` : formatDuration(s)),
}

export const measures: readonly Measure[] = [
  ...Object.entries(shown).map(([id, tell]): Measure => {
    const verdict = verdicts.find((one) => one.id === id)!
    return {
      id,
      label: verdict.label,
      better: verdict.better,
      of: (p, purpose) => verdict.of(p, purpose).value,
      shown: tell,
      changed: changed[id] ?? tell,
    }
  }),
  { id: 'risks', label: 'Risks', better: 'less', of: (p) => p.checks.length, shown: String, changed: String },
]

/** "−12 min", "+3.1 µm"; nothing where it does not show. */
export function signed({ changed: tell }: Measure, change: number): string {
  const text = tell(Math.abs(change))
  if (Number(text.replace(/[^\d.]/g, '')) === 0) return ''
  return `${change < 0 ? '−' : '+'}${text}`
}

export const senseOf = ({ better }: Measure, change: number): 'better' | 'worse' | 'same' =>
  change === 0 || better === 'neither' ? 'same' : change < 0 === (better === 'less') ? 'better' : 'worse'
