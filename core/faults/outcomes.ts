import type { Cause, Remedy } from './spec/cause'

/** What came of a change that was to take a cause away. */
export const tryResults = ['fixed', 'better', 'same', 'worse', 'another'] as const
export type TryResult = (typeof tryResults)[number]

/** A change for a cause, and what it did. */
export interface Tried {
  readonly cause: Cause['id']
  readonly did: TryResult
  /** Its words; where they are not told, tries of a cause are taken for its remedies in their order. */
  readonly words?: string | undefined
  /** Prints in a row for which that held. */
  readonly times?: number | undefined
  /** Of what it was, where that is another case of the same fault, on the same printer and from the same reel. */
  readonly elsewhere?: string | undefined
}

/** A mild change has a stronger one after it; a trial, or the last change, takes the cause away where it is the one. */
export type Strength = 'mild' | 'full'

/**
 * How often a change comes to what where its cause is the one, and where it is another. Mild changes do little where they are right, and help a
 * little where they are wrong: cooler makes fewer strings of a damp reel too. Assumed, in view of what changes did on simulated printers with
 * hidden faults (`bench/cases.ts`).
 */
export const chances: Readonly<
  Record<Strength, { readonly ifIt: Readonly<Record<TryResult, number>>; readonly ifNot: Readonly<Record<TryResult, number>> }>
> = {
  mild: {
    ifIt: { fixed: 0.35, better: 0.35, same: 0.26, worse: 0.02, another: 0.02 },
    ifNot: { fixed: 0.04, better: 0.25, same: 0.63, worse: 0.04, another: 0.04 },
  },
  full: {
    ifIt: { fixed: 0.75, better: 0.15, same: 0.07, worse: 0.01, another: 0.02 },
    ifNot: { fixed: 0.05, better: 0.12, same: 0.74, worse: 0.05, another: 0.04 },
  },
}

/** How many times likelier a result is where the cause is the one. */
export const factorOfResult = (strength: Strength, did: TryResult): number => chances[strength].ifIt[did] / chances[strength].ifNot[did]

export function strengthOf({ remedies }: Pick<Cause, 'remedies'>, remedy: Remedy): Strength {
  if (remedy.trial) return 'full'
  return remedies.slice(remedies.indexOf(remedy) + 1).some(({ trial }) => !trial) ? 'mild' : 'full'
}

/** Tries of a cause, each with the remedy that it was; nothing where it was found out elsewhere, or by something that is no longer offered. */
export function triesOf(cause: Cause, tried: readonly Tried[]): { readonly one: Tried; readonly remedy: Remedy | undefined }[] {
  let place = 0
  return tried
    .filter((one) => one.cause === cause.id)
    .map((one) => {
      if (one.elsewhere !== undefined) return { one, remedy: undefined }
      const inOrder = cause.remedies[Math.min(place++, cause.remedies.length - 1)]
      return { one, remedy: one.words === undefined ? inOrder : cause.remedies.find(({ words }) => words === one.words) }
    })
}

/** A change as strong as there is did nothing, or any made it worse; elsewhere that was found out already. */
export const isRuledOut = (cause: Cause, tried: readonly Tried[]): boolean =>
  triesOf(cause, tried).some(
    ({ one, remedy }) => one.did === 'worse' || (one.did === 'same' && (remedy === undefined || strengthOf(cause, remedy) === 'full')),
  )
