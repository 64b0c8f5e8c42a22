/** The stage of the pipeline that first reads a setting; every stage after it sees the change through its input. */
export const stages = ['layers', 'regions', 'toolpath', 'motion', 'figures'] as const
export type Stage = (typeof stages)[number]

/** Groups of the ledger, by the names that the trade has for them. */
export const groups = [
  'Lines and layers',
  'Walls, tops and bottoms',
  'Infill',
  'Speed and acceleration',
  'Heat, cooling, overhangs',
  'Retraction and travel',
  'Supports',
  'First layer and brim',
] as const
export type Group = (typeof groups)[number]

interface Common {
  readonly label: string
  readonly group: Group
  readonly stage: Stage
  readonly help: string
  /** Other words that practitioners use, for search. */
  readonly synonyms: readonly string[]
}

export interface NumberSetting extends Common {
  readonly kind: 'number'
  readonly unit: '' | 'mm' | 'mm/s' | 'mm/s²' | 'mm³/s' | '%' | '°' | '°C' | 's'
  readonly min: number
  readonly max: number
  /** One press of an arrow key. */
  readonly step: number
  readonly whole: boolean
  /** Common practice for a 0.4 mm bore, used where neither printer, nozzle, material nor profile says otherwise. */
  readonly fallback: number
  /** What 0 says where it is no number of its own. */
  readonly zero?: string
}

export interface ChoiceSetting<C extends string = string> extends Common {
  readonly kind: 'choice'
  readonly choices: readonly C[]
  readonly fallback: C
}

export type Setting = NumberSetting | ChoiceSetting

type Range = readonly [min: number, max: number, step: number]

/** Builders of one group's settings, so that each stands in its table as one entry. */
export const inGroup = (group: Group) => ({
  number: (
    stage: Stage,
    label: string,
    unit: NumberSetting['unit'],
    [min, max, step]: Range,
    fallback: number,
    help: string,
    ...synonyms: string[]
  ): NumberSetting => ({
    kind: 'number',
    group,
    stage,
    label,
    unit,
    min,
    max,
    step,
    whole: unit === '' && step === 1,
    fallback,
    help,
    synonyms,
  }),

  choice: <const C extends string>(
    stage: Stage,
    label: string,
    choices: readonly C[],
    fallback: C,
    help: string,
    ...synonyms: string[]
  ): ChoiceSetting<C> => ({ kind: 'choice', group, stage, label, choices, fallback, help, synonyms }),
})
