import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Basis } from '@sable/core/shelf/material'
import { splitDuration } from '@sable/core/units/format'

/** One predicted figure of the ledger: how to find it, show it and judge it. */
export interface Verdict {
  readonly id: string
  readonly label: string
  readonly help: string
  /** Unit of `value`: figures are shown in whatever unit reads best. */
  readonly base: string
  /** Which way is better; a bar longer than the first column's is then good or bad. */
  readonly better: 'less' | 'more' | 'neither'
  readonly of: (
    prediction: Prediction,
    purpose: Purpose,
  ) => {
    readonly value: number
    readonly text: string
    readonly unit: string
    readonly note?: string
    readonly basis: Basis
    /** Where this column tells another thing than the row: figures of different bases are not compared. */
    readonly base?: string
  }
  /** Rows that open beneath it. */
  readonly parts?: readonly Verdict[]
}

export const fixed = (value: number, digits: number): string => value.toFixed(digits)

export const time = (id: string, label: string, seconds: (p: Prediction) => number, help: string): Verdict => ({
  id,
  label,
  help,
  base: 's',
  better: 'less',
  of: (p) => ({ value: seconds(p), ...splitDuration(seconds(p)), basis: 'calculated' }),
})

/** A figure that is told by a number and its unit. */
export const plain = (
  id: string,
  label: string,
  base: string,
  help: string,
  better: Verdict['better'],
  of: (p: Prediction, purpose: Purpose) => { value: number; text: string; unit: string; note?: string; basis?: Basis },
  parts?: readonly Verdict[],
): Verdict => ({
  id,
  label,
  base,
  help,
  better,
  of: (p, purpose) => ({ basis: 'assumed', ...of(p, purpose) }),
  ...(parts ? { parts } : {}),
})

export const percent = (share: number): { value: number; text: string; unit: string } => ({
  value: share,
  text: fixed(100 * share, 0),
  unit: '%',
})
export const atHeight = (z: number): string => `z ${fixed(z, 1)}`
