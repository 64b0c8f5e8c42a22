import { wholeRanges } from '@sable/core/log/foretoldPrint'
import { hasEnded } from '@sable/core/log/lookBack'
import type { Job, Queue, Window } from '@sable/core/queue/queue'
import type { PrintLine } from './prints'
import type { QueueContent, QueueJob } from './queues'

const MINUTE = 60_000
/** Hours of presence are laid out for so many days. */
const DAYS = 21
/** As if so many prints had been made before, of which this share failed; assumed. */
const [PRINTS_BEFORE, FAILED_BEFORE] = [5, 0.1]

/** What of a job is done, is being printed, and is still to be placed. */
export interface JobState {
  readonly done: number
  readonly running: readonly PrintLine[]
  readonly failed: number
  readonly left: number
}

/** A copy that failed is to be printed again; one that was planned and not begun is still to be placed. */
export function stateOf({ copies, prints }: QueueJob, lines: ReadonlyMap<string, PrintLine>): JobState {
  const own = prints.flatMap((id) => lines.get(id) ?? [])
  const done = own.filter(({ state }) => state === 'good' || state === 'usable').length
  const running = own.filter(({ state }) => state === 'running')
  const failed = own.filter((line) => hasEnded(line)).length - done
  return { done, running, failed, left: Math.max(0, copies - done - running.length) }
}

/** Minutes from now at which a print that runs is foretold to end; at least one where it should be done already. */
const endsIn = ({ startedAt, timeS }: PrintLine, now: number): number =>
  Math.max(1, (Date.parse(startedAt ?? '') + 1000 * timeS - now) / MINUTE || 1)

/** Share of a printer's prints that fail, as the log has it. */
export function failShare(printer: string, lines: Iterable<PrintLine>): number {
  const own = [...lines].filter((line) => line.printer === printer && hasEnded(line))
  const failed = own.filter(({ state }) => state === 'spoiled' || state === 'stopped').length
  return (failed + FAILED_BEFORE * PRINTS_BEFORE) / (own.length + PRINTS_BEFORE)
}

/** Hours of the week as windows from now on, minutes; in the time of this place. */
export function windowsFrom(hours: QueueContent['hours'], now: Date): Window[] {
  const day = new Date(now.getFullYear(), now.getMonth(), now.getDate())
  return Array.from({ length: DAYS }, (_, i) => new Date(day.getFullYear(), day.getMonth(), day.getDate() + i)).flatMap((date) =>
    hours
      .filter(({ days }) => days.includes((date.getDay() + 6) % 7))
      .map(({ from, to }) => {
        const at = (clock: string): number => {
          const [hour = 0, minute = 0] = clock.split(':').map(Number)
          return (new Date(date.getFullYear(), date.getMonth(), date.getDate(), hour, minute).getTime() - now.getTime()) / MINUTE
        }
        return { from: Math.max(0, at(from)), to: at(to) }
      })
      .filter(({ from, to }) => to > from),
  )
}

interface Reel {
  readonly key: string
  readonly grams: number
  readonly doubtG: number
}

/** What is still to be planned, from now on: copies that are done or run are out of it, printers that run are busy. */
export function queueNow(content: QueueContent, lines: ReadonlyMap<string, PrintLine>, reels: readonly Reel[], now: Date): Queue {
  const at = (iso: string): number => (Date.parse(iso) - now.getTime()) / MINUTE
  const running = [...lines.values()].filter(({ state }) => state === 'running')
  const machines = content.machines.filter(({ away }) => !away)
  const jobs = content.jobs.flatMap((job): Job[] => {
    const { left } = stateOf(job, lines)
    if (left === 0) return []
    const { id, deadline, notBefore, weight, ways, heldTo } = job
    const own = ways.some(({ printer }) => printer === heldTo) ? ways.filter(({ printer }) => printer === heldTo) : ways
    return [
      {
        id,
        copies: left,
        ...(deadline === undefined ? {} : { deadline: at(deadline) }),
        ...(notBefore === undefined ? {} : { notBefore: Math.max(0, at(notBefore)) }),
        weight,
        options: own.map(({ printer, nozzle, spool, profile, foretold }) => {
          const [low, high] = wholeRanges(foretold).time
          return {
            printer,
            minutes: (foretold.timeS + foretold.startS) / 60,
            low: low / 60,
            high: high / 60,
            grams: foretold.massG,
            nozzle,
            ...(spool === undefined ? {} : { spool }),
            name: profile,
          }
        }),
      },
    ]
  })
  const wanted = new Set(jobs.flatMap(({ options }) => options.flatMap(({ spool }) => spool ?? [])))
  return {
    printers: machines.map(({ printer, changeMinutes, spoolMinutes, nozzleMinutes }) => {
      const busy = running.find((line) => line.printer === printer)
      const last = [...lines.values()]
        .filter((line) => line.printer === printer && line.startedAt)
        .sort((a, b) => b.startedAt!.localeCompare(a.startedAt!))[0]
      return {
        key: printer,
        changeMinutes,
        spoolMinutes,
        nozzleMinutes,
        freeAt: busy ? endsIn(busy, now.getTime()) : 0,
        // What the last print was made with is mounted still.
        ...(last ? { nozzle: last.nozzle, ...(last.spool === undefined ? {} : { spool: last.spool }) } : {}),
        fails: failShare(printer, lines.values()),
      }
    }),
    ...(content.hours.length === 0 ? {} : { presence: windowsFrom(content.hours, now) }),
    spools: reels.filter(({ key }) => wanted.has(key)),
    jobs,
  }
}
