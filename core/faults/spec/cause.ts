import type { SettingName, SettingValues } from '../../profile/settings'
import type { TrialKindId } from '../../trials/spec/trial'
import type { Scene } from './scene'

/** What a clue says: what is so in this very print, and how many times likelier that is where the cause is true than where it is not. */
export interface Said {
  readonly what: string
  readonly factor: number
}

/** Evidence for or against a cause, computed from a print. */
export interface Clue {
  /** Where the factor comes from: a published source, common practice by its number, or "assumed". */
  readonly basis: string
  /** Clues of a cause about one and the same thing are no two witnesses: the one that says most counts. */
  readonly about?: string | undefined
  /** Nothing where it cannot be known here. */
  readonly read: (scene: Scene) => Said | undefined
}

/** One change that would tell whether a cause is the true one, or that takes it away. */
export interface Remedy {
  /** As an order to oneself: "Dry the spool". */
  readonly words: string
  /** What is changed of the candidate; nothing where that would change nothing. Absent where it is done by hand. */
  readonly change?: (scene: Scene) => SettingValues | undefined
  /** A trial that tells it. */
  readonly trial?: TrialKindId
  /** Which layer of the shelf keeps what was found. */
  readonly keeps: 'spool' | 'printer' | 'profile' | 'nothing'
  /** By hand: about so many minutes, assumed. */
  readonly minutes?: number
  /** And so many more in which nothing is to be done, assumed. */
  readonly waits?: number
  /** Where it can hurt. */
  readonly caution?: string
}

/** Why something comes out wrong. */
export interface Cause {
  readonly id: string
  readonly name: string
  /** How it does what is seen. */
  readonly why: string
  readonly clues: readonly Clue[]
  /** The mildest first, as practice goes. */
  readonly remedies: readonly Remedy[]
  /** Where practitioners disagree. */
  readonly school?: string
}

/** What a remedy changes of the candidate as it is; nothing where that is how it is already. */
export function changeBy({ change }: Remedy, scene: Scene): SettingValues | undefined {
  const changed = Object.entries(change?.(scene) ?? {}).filter(([name, value]) => scene.settings[name as SettingName] !== value)
  return changed.length === 0 ? undefined : Object.fromEntries(changed)
}

const MOST = 8
/** A setting may not do what it says, and a model may be wrong: what they say against a cause is never more than this. Assumed. */
const LEAST = 1 / 4

/** Assumed: how strongly a measured value speaks. At its threshold it says nothing, at twice that `2 ** steep`; at most eight times for, four times against. */
export const factorOf = (value: number, at: number, steep = 2): number =>
  Number.isFinite(value) ? Math.min(MOST, Math.max(LEAST, (Math.max(value, 1e-9) / at) ** steep)) : 1

/** A clue that is a number beyond a threshold. */
export const measured = (
  basis: string,
  of: (scene: Scene) => { readonly value: number; readonly at: number; readonly what: string; readonly steep?: number } | undefined,
  about?: string,
): Clue => ({
  basis,
  about,
  read(scene) {
    const found = of(scene)
    if (!found || Number.isNaN(found.value)) return undefined
    return { what: found.what, factor: factorOf(found.value, found.at, found.steep) }
  },
})

/** A clue that is so or not so. */
export const whether = (
  basis: string,
  of: (scene: Scene) => { readonly so: boolean; readonly what: string } | undefined,
  ifSo = 3,
  ifNot = 1 / 3,
): Clue => ({
  basis,
  read(scene) {
    const found = of(scene)
    return found && { what: found.what, factor: found.so ? ifSo : ifNot }
  },
})
