/** All times are minutes from now, all masses g. */

/** One way to print a job: on one printer, with what. */
export interface JobOption {
  readonly printer: string
  readonly minutes: number
  /** 80 % range of the minutes. */
  readonly low?: number | undefined
  readonly high?: number | undefined
  readonly grams?: number | undefined
  /** What has to be mounted for it; nothing where that does not matter. */
  readonly spool?: string | undefined
  readonly nozzle?: string | undefined
  /** Whose it is, for whoever asks; nothing here reads it. */
  readonly way?: number | undefined
  /** So many copies are printed one at a time on one plate: nobody is needed between them. One where nothing is told. */
  readonly perPlate?: number | undefined
  /** Of its minutes, what only the first copy of a plate takes: heating, homing, purging. */
  readonly startMinutes?: number | undefined
}

/** Something to be printed, as often as there are copies; each copy goes to one printer as a whole. */
export interface Job {
  readonly id: string
  readonly copies: number
  /** Any of them will do. */
  readonly options: readonly JobOption[]
  readonly deadline?: number | undefined
  /** It should be done by then if it can be; nothing is late for it. */
  readonly wishedBy?: number | undefined
  readonly notBefore?: number | undefined
  /** Late copies of it count so many times as much as others'. */
  readonly weight?: number | undefined
}

/** A machine, and what a person has to do between two of its prints. */
export interface QueuePrinter {
  readonly key: string
  /** To take off what is done and start what comes next. */
  readonly changeMinutes: number
  /** More of it where another reel, or another nozzle, is mounted. */
  readonly spoolMinutes?: number | undefined
  readonly nozzleMinutes?: number | undefined
  /** When it is free at first, and what is mounted then. */
  readonly freeAt?: number | undefined
  readonly spool?: string | undefined
  readonly nozzle?: string | undefined
  /** Share of its prints that fail, 0–1. */
  readonly fails?: number | undefined
}

/** Somebody is there: prints are started and cleared away within such hours, and run on outside of them. */
export interface Window {
  readonly from: number
  readonly to: number
}

/** What is left of a reel. */
export interface QueueSpool {
  readonly key: string
  readonly grams: number
  /** How far that may be off. */
  readonly doubtG?: number | undefined
  /** It is to be finished before others that would do. */
  readonly useUp?: boolean | undefined
  /** A print that it does not last for goes on from this one: somebody changes reels midway. */
  readonly followedBy?: string | undefined
}

export interface Queue {
  readonly printers: readonly QueuePrinter[]
  readonly jobs: readonly Job[]
  /** Nothing where somebody is always there. */
  readonly presence?: readonly Window[] | undefined
  /** Nothing is printed then, not even what was started before. */
  readonly quiet?: readonly Window[] | undefined
  readonly spools?: readonly QueueSpool[] | undefined
}

/** A copy of a job, in one of its ways. */
export interface Item {
  readonly job: number
  readonly copy: number
  readonly option: number
}

/** Items of each printer in their order. */
export type Lanes = readonly (readonly Item[])[]

/** What is taken off a reel. */
export interface Take {
  readonly spool: string
  readonly grams: number
  /** When the print goes on from it; absent of the first. */
  readonly from?: number
}

/** An item at its time. `setUpAt` is when a person begins to make the printer ready. */
export interface Placed extends Item {
  readonly printer: number
  readonly setUpAt: number
  readonly startsAt: number
  readonly endsAt: number
  /** It goes on by itself on the plate of the copy before it. */
  readonly isOnPlate?: true
  /** Off which reels, in their order; of its option's alone where that is all. */
  readonly takes?: readonly Take[]
}

/** What a copy takes off which reels. */
export const takesOf = ({ takes }: Pick<Placed, 'takes'>, { spool, grams = 0 }: JobOption): readonly Take[] =>
  takes ?? (spool === undefined ? [] : [{ spool, grams }])
