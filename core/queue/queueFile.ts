import { z } from 'zod'
import { told } from './plan'
import type { Job, Queue } from './queue'
import type { Schedule } from './schedule'

const key = z.string().min(1).max(64)
const moment = z.iso.datetime({ offset: true })
const minutes = z.number().min(0).max(1e6)

const hours = (what: string) =>
  z
    .array(
      z
        .strictObject({ from: moment, to: moment })
        .refine(({ from, to }) => Date.parse(to) > Date.parse(from), `${what} ends before it begins.`),
    )
    .max(2000)

/** Printers, presence and jobs as a file; moments as ISO 8601, minutes and grams as numbers. */
export const queueFileSchema = z.strictObject({
  now: moment,
  printers: z
    .array(
      z.strictObject({
        key,
        changeMinutes: minutes.default(0),
        spoolMinutes: minutes.optional(),
        nozzleMinutes: minutes.optional(),
        freeAt: moment.optional(),
        spool: key.optional(),
        nozzle: key.optional(),
        fails: z.number().min(0).max(0.95).optional(),
      }),
    )
    .min(1)
    .max(200)
    .refine((all) => new Set(all.map((one) => one.key)).size === all.length, 'Two printers have the same key.'),
  presence: hours('An hour of presence').optional(),
  /** Nothing is printed then. */
  quiet: hours('A quiet hour').optional(),
  spools: z
    .array(
      z.strictObject({
        key,
        grams: z.number().min(0).max(1e5),
        doubtG: z.number().min(0).max(1e5).optional(),
        /** To be finished before others that would do. */
        useUp: z.boolean().optional(),
        /** A print that it does not last for goes on from this one. */
        followedBy: key.optional(),
      }),
    )
    .max(500)
    .optional(),
  jobs: z
    .array(
      z
        .strictObject({
          id: key,
          /** Either its minutes, or a model file and a profile file of which they are foretold. */
          minutes: z.number().positive().max(1e6).optional(),
          part: z.string().min(1).max(1000).optional(),
          profile: z.string().min(1).max(1000).optional(),
          copies: z.number().int().min(1).max(500).default(1),
          deadline: moment.optional(),
          notBefore: moment.optional(),
          printers: z.array(key).max(200).optional(),
          weight: z.number().positive().max(1000).optional(),
          low: minutes.optional(),
          high: minutes.optional(),
          grams: z.number().min(0).max(1e5).optional(),
          spool: key.optional(),
          nozzle: key.optional(),
          /** So many copies stand on one plate, one at a time; and what only the first of them takes to heat up. */
          perPlate: z.number().int().min(1).max(500).optional(),
          startMinutes: minutes.optional(),
        })
        .refine(
          ({ minutes: own, part }) => (own === undefined) !== (part === undefined),
          'A job has either "minutes" or "part" (with "profile").',
        ),
    )
    .max(2000)
    .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, 'Two jobs have the same id.'),
})
export type QueueFile = z.infer<typeof queueFileSchema>
export type QueueFileJob = QueueFile['jobs'][number]

/** How long a job takes on a printer, and what it weighs. */
export type Foretell = (job: QueueFileJob, printer: string) => { readonly minutes: number; readonly grams?: number | undefined }

const MINUTE = 60_000

/** @param foretell asked only of jobs without minutes of their own */
export function queueOf({ now, printers, presence, quiet, spools, jobs }: QueueFile, foretell: Foretell): Queue {
  const at = (iso: string): number => (Date.parse(iso) - Date.parse(now)) / MINUTE
  const opt = <Name extends string>(name: Name, iso: string | undefined) => (iso === undefined ? {} : { [name]: at(iso) })
  const windows = (all: NonNullable<QueueFile['presence']>) => all.map(({ from, to }) => ({ from: Math.max(0, at(from)), to: at(to) }))
  return {
    printers: printers.map(({ freeAt, ...printer }) => ({
      ...printer,
      ...opt('freeAt', freeAt === undefined || at(freeAt) < 0 ? undefined : freeAt),
    })),
    ...(presence ? { presence: windows(presence) } : {}),
    ...(quiet ? { quiet: windows(quiet) } : {}),
    ...(spools ? { spools } : {}),
    jobs: jobs.map((job): Job => {
      const { id, copies, deadline, notBefore, weight, low, high, grams, spool, nozzle, perPlate, startMinutes } = job
      return {
        id,
        copies,
        ...opt('deadline', deadline),
        ...opt('notBefore', notBefore),
        weight,
        options: (job.printers ?? printers.map((printer) => printer.key)).map((printer) => ({
          printer,
          low,
          high,
          grams,
          spool,
          nozzle,
          perPlate,
          startMinutes,
          ...(job.minutes === undefined
            ? printers.some((one) => one.key === printer)
              ? foretell(job, printer)
              : // Of a printer that is not there nothing is foretold: the job is refused for it.
                { minutes: 1 }
            : { minutes: job.minutes }),
        })),
      }
    }),
  }
}

/** A schedule as a file, with moments as ISO 8601. */
export function scheduleAsFile({ now, printers }: Pick<QueueFile, 'now' | 'printers'>, found: Schedule) {
  const { items, makespan, lowerBound, late, refused, spools } = told(found)
  const { jobs } = found.ground.queue
  const at = (minute: number): string => new Date(Date.parse(now) + minute * MINUTE).toISOString()
  return {
    lanes: printers.map(({ key: printer }) => ({
      printer,
      items: items
        .filter(({ on }) => on === printer)
        .map(({ job, of, copy, startsAt, endsAt, setUpAt, low, high, lateShare, isOnPlate, takes }) => ({
          job: of,
          copy: copy + 1,
          startsAt: at(startsAt),
          endsAt: at(endsAt),
          setUpAt: at(setUpAt),
          endsLow: at(low),
          endsHigh: at(high),
          ...(jobs[job]!.deadline === undefined ? {} : { lateShare }),
          ...(isOnPlate ? { onPlateOfTheOneBefore: true } : {}),
          ...(takes
            ? { reels: takes.map(({ spool, grams, from }) => ({ spool, grams, ...(from === undefined ? {} : { from: at(from) }) })) }
            : {}),
        })),
    })),
    makespanMinutes: makespan,
    lowerBoundMinutes: lowerBound,
    late,
    refused,
    ...(found.ground.queue.spools ? { spools } : {}),
  }
}
