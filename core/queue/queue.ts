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
  /** Of the profile, where there are several. */
  readonly name?: string | undefined
}

/** Something to be printed, as often as there are copies; each copy goes to one printer as a whole. */
export interface Job {
  readonly id: string
  readonly copies: number
  /** Any of them will do. */
  readonly options: readonly JobOption[]
  readonly deadline?: number | undefined
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
}

export interface Queue {
  readonly printers: readonly QueuePrinter[]
  readonly jobs: readonly Job[]
  /** Nothing where somebody is always there. */
  readonly presence?: readonly Window[] | undefined
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

/** An item at its time. `setUpAt` is when a person begins to make the printer ready. */
export interface Placed extends Item {
  readonly printer: number
  readonly setUpAt: number
  readonly startsAt: number
  readonly endsAt: number
}
