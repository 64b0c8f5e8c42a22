import type { LimitName, Purpose } from '../../physics/strength/purpose'
import type { Prediction } from '../../pipeline/predict'
import type { KnownSetup } from '../../setup/knownSetup'
import type { Basis } from '../../shelf/material'
import { splitDuration } from '../../units/format'

/** Ids of the figures in their order. A new one gets its place here, its file in `table/`, and a name in `figures.ts`. */
export const figureIds = [
  'time',
  'unslowed',
  'filament',
  'cost',
  'surface',
  'gloss',
  'strength',
  'cooling',
  'sway',
  'strings',
  'fit',
  'warp',
] as const
export type FigureId = (typeof figureIds)[number]

/** A figure of one candidate, as it is read. */
export interface Told {
  readonly value: number
  readonly text: string
  readonly unit: string
  readonly note?: string
  readonly basis: Basis
  /** Where this candidate tells another thing than the row: figures of different bases are not compared. */
  readonly base?: string
}

/** A row of figures, one a candidate: how to find it, show it and judge it. */
export interface FigureRow {
  readonly id: string
  readonly label: string
  readonly help: string
  /** Unit of `value`: figures are shown in whatever unit reads best. */
  readonly base: string
  /** Which way is better; a bar longer than the first candidate's is then good or bad. */
  readonly better: 'less' | 'more'
  /** Better that way only to some: never judged good or bad. */
  readonly taste?: true
  readonly of: (prediction: Prediction, purpose: Purpose) => Told
  /** Rows that open beneath it. */
  readonly parts?: readonly FigureRow[]
}

/** Why a figure is what it is. */
export interface Reason {
  /** The model in one line. */
  readonly equation: string
  /** The same with this candidate's numbers, term by term. */
  readonly terms: readonly { readonly label: string; readonly value: string }[]
  /** What holds it, or where it is worst. */
  readonly place: string
  readonly basis: Basis
  readonly source: string
}

/** A limit that a purpose can set on a figure. */
export interface LimitOf {
  readonly name: LimitName
  /** "under 3 h", after the value that is wanted. */
  readonly words: (wanted: string) => string
}

/** One of the figures that candidates are chosen by: all that ledger, plots, searches, limits, files and drawers know of it. */
export interface Figure extends FigureRow {
  readonly id: FigureId
  /** As a word within a sentence: "misses mass". */
  readonly noun: string
  /** As bare numbers, on axes and in tables: base units in one of this unit, and decimals. */
  readonly plain: { readonly unit: string; readonly per: number; readonly digits: number }
  /** In base units: what searches weigh and limits are held against. */
  readonly value: (prediction: Prediction, purpose: Purpose) => number
  /** "1 h 12 min", "14.2 µm" */
  readonly shown: (value: number) => string
  /** A difference without its sign; told finer where that makes differences add up. */
  readonly changed?: (value: number) => string
  readonly limit?: LimitOf
  /** The figure that it is read beside; it has no row of its own among figures, but one that opens beneath that one. */
  readonly beside?: FigureId
  readonly explain: (prediction: Prediction, setup: KnownSetup, purpose: Purpose) => Reason
}

export const fixed = (value: number, digits: number): string => value.toFixed(digits)
export const mm = (value: number, digits = 1): string => `${value.toFixed(digits).replace('-', '−')} mm`
export const asPercent = (share: number): string => `${Math.round(100 * share)} %`

/** "14.2 µm": a value in a figure's own plain unit. */
export const inPlain =
  ({ unit, per, digits }: Figure['plain']) =>
  (value: number): string =>
    `${(value / per).toFixed(digits)}${unit === '' ? '' : ` ${unit}`}`

export const timeRow = (id: string, label: string, seconds: (p: Prediction) => number, help: string): FigureRow => ({
  id,
  label,
  help,
  base: 's',
  better: 'less',
  of: (p) => ({ value: seconds(p), ...splitDuration(seconds(p)), basis: 'calculated' }),
})

/** A row that is told by a number and its unit; assumed unless it says otherwise. */
export const row = (
  id: string,
  label: string,
  base: string,
  help: string,
  better: FigureRow['better'],
  of: (p: Prediction, purpose: Purpose) => Omit<Told, 'basis'> & Partial<Pick<Told, 'basis'>>,
): FigureRow => ({ id, label, base, help, better, of: (p, purpose) => ({ basis: 'assumed', ...of(p, purpose) }) })

export const percent = (share: number): { value: number; text: string; unit: string } => ({
  value: share,
  text: fixed(100 * share, 0),
  unit: '%',
})
export const atHeight = (z: number): string => `z ${fixed(z, 1)}`
