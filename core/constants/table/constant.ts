/** Whose number it is: what a reading of it says something about. `model` where it is the model's alone. */
export type Owner = 'printer' | 'hot end' | 'nozzle' | 'material' | 'spool' | 'pair' | 'model'

/** A number that a model rests on and that is not mathematics. */
export interface Constant {
  readonly label: string
  /** Empty for a bare number; factors on what a record says are bare numbers about 1. */
  readonly unit: string
  readonly owner: Owner
  /** On which its spread is even: `log` for what is never negative and scatters by shares, `plain` for the rest. */
  readonly scale: 'log' | 'plain'
  /** What is taken for it until something was read. */
  readonly median: number
  /** One standard deviation: of the logarithm, or in its own unit. */
  readonly spread: number
  /** A published text, common practice, or an assumption. */
  readonly source: string
  /** What narrows it, where there is such a test: what to do, and the spread that it leaves. */
  readonly measure?: { readonly how: string; readonly leaves: number }
  /** Figures of the table that it moves, or what stands beneath them. */
  readonly moves: readonly string[]
}

/** A number of a model alone, that scatters by shares. */
export const ofModel = (
  label: string,
  unit: string,
  median: number,
  spread: number,
  source: string,
  moves: readonly string[],
): Constant => ({ label, unit, owner: 'model', scale: 'log', median, spread, source, moves })
