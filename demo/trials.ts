import type { TrialChoice } from '@sable/core/trials/plan'
import type { TrialAnswers } from '@sable/core/trials/read'
import type { TrialKindId } from '@sable/core/trials/spec/trial'

/** A test print of the lantern maker, and what was read of it; nothing where it still lies on the table. */
export interface DemoTrial {
  readonly spool: string
  readonly material: string
  readonly printer: string
  readonly nozzle: string
  readonly kind: TrialKindId
  readonly choice?: TrialChoice
  readonly daysAgo: number
  /** By band, from the first one. */
  readonly bands?: TrialAnswers['bands']
  readonly whole?: TrialAnswers['whole']
  readonly note?: string
  readonly insisted?: string
  readonly unread?: true
}

const seen = (...words: readonly string[]): TrialAnswers['bands'] => words.map((word) => ({ seen: word }))
const strings = (...words: readonly string[]): TrialAnswers['bands'] => words.map((word) => ({ strings: word }))
const black = { spool: 'storm-black', material: 'pla', printer: 'lugger', nozzle: 'bore-0.4' } as const
const amber = { ...black, spool: 'lamp-amber', material: 'petg' } as const
const brown = { ...black, spool: 'rope-ends', printer: 'dory' } as const

/** Storm black half-way up its ladder; a wet PETG that refuses retraction; two reels of one maker; two readings that contradict each other. */
export const demoTrials: readonly DemoTrial[] = [
  { ...black, kind: 'dryness', daysAgo: 11, whole: { sound: 'no', strand: 'smooth' } },
  {
    ...black,
    kind: 'temperature',
    daysAgo: 10,
    bands: seen('gaps', 'gaps', 'gaps', 'clean', 'clean', 'strings', 'strings'),
    note: 'Lowest band snaps by hand.',
  },
  {
    ...black,
    kind: 'temperature',
    choice: { range: { from: 202, to: 214, step: 2 } },
    daysAgo: 9,
    bands: seen('gaps', 'clean', 'clean', 'clean', 'clean', 'clean', 'strings'),
  },
  { ...black, kind: 'bed', daysAgo: 9, whole: { corners: 'flat', pull: 'well', squeezed: 'bends' } },
  { ...black, kind: 'gloss', daysAgo: 1, unread: true },
  { ...amber, kind: 'dryness', daysAgo: 3, whole: { sound: 'little', strand: 'smooth' } },
  {
    ...amber,
    kind: 'retraction',
    daysAgo: 2,
    bands: strings('webs', 'webs', 'webs', 'hairs', 'hairs', 'hairs'),
    insisted: 'The spool is probably wet, and wet filament defeats every retraction: dry it first.',
    note: 'Strings whatever is pulled.',
  },
  { ...brown, kind: 'temperature', daysAgo: 30, bands: seen('gaps', 'gaps', 'clean', 'clean', 'strings', 'strings', 'strings') },
  {
    ...brown,
    kind: 'temperature',
    daysAgo: 6,
    bands: seen('gaps', 'gaps', 'gaps', 'gaps', 'gaps', 'clean', 'clean'),
    note: 'Draught from the door?',
  },
  { ...brown, kind: 'barsLying', daysAgo: 5, whole: { arm: 60, load1: 2.2, load2: 2.35, load3: 2.25 } },
]
