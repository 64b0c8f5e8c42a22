import { wholeRanges } from '@sable/core/log/foretoldPrint'
import { hasEnded } from '@sable/core/log/lookBack'
import type { Job, JobOption, Queue } from '@sable/core/queue/queue'
import type { Printer } from '@sable/core/shelf/printer'
import { platesOf } from './plates'
import type { FrozenPrint, PrintLine } from './prints'
import { quietFrom, windowsFrom } from './queueHours'
import type { QueueContent, QueueJob } from './queues'

const MINUTE = 60_000
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
export function stateOf({ copies, prints, onPlate }: QueueJob, lines: ReadonlyMap<string, PrintLine>): JobState {
  const own = prints.flatMap((id) => lines.get(id) ?? [])
  const copiesOf = (some: readonly PrintLine[]): number => some.reduce((sum, { id }) => sum + (onPlate[id] ?? 1), 0)
  const done = copiesOf(own.filter(({ state }) => state === 'good' || state === 'usable'))
  const running = own.filter(({ state }) => state === 'running')
  const failed = copiesOf(own.filter((line) => hasEnded(line))) - done
  return { done, running, failed, left: Math.max(0, copies - done - copiesOf(running)) }
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

/** A reel of the shelf that is at hand. */
export interface Reel {
  readonly key: string
  readonly material: string
  readonly color?: string | undefined
  readonly grams: number
  readonly doubtG: number
}

/** What a queue is held against: the log, what is left of reels, and what printers have room for. */
export interface Around {
  readonly lines: ReadonlyMap<string, PrintLine>
  readonly reels: readonly Reel[]
  readonly printers: readonly Printer[]
}

/** Reels off which a way can be printed, its own the first. */
function reelsFor({ spool, material }: FrozenPrint, choice: QueueJob['reel'], reels: readonly Reel[]): (string | undefined)[] {
  const own = reels.find(({ key }) => key === spool)
  if (choice === 'own' || spool === undefined) return [spool]
  const others = reels.filter(
    (one) => one.key !== spool && one.material === material && (choice === 'any' || (own?.color !== undefined && one.color === own.color)),
  )
  return [spool, ...others.map(({ key }) => key)]
}

/** Ways to print what is left of a job: as it was foretold, off each reel that will do. */
function optionsOf({ ways, heldTo, reel, plates }: QueueJob, { reels, printers }: Around): JobOption[] {
  const isHeld = ways.some(({ printer }) => printer === heldTo)
  return ways.flatMap((frozen, way) => {
    const { printer, nozzle, foretold } = frozen
    if (isHeld && printer !== heldTo) return []
    const [low, high] = wholeRanges(foretold).time
    const { most } = plates
      ? platesOf(
          frozen,
          printers.find(({ key }) => key === printer),
        )
      : { most: 1 }
    return reelsFor(frozen, reel, reels).map((spool) => ({
      way,
      printer,
      minutes: (foretold.timeS + foretold.startS) / 60,
      low: low / 60,
      high: high / 60,
      grams: foretold.massG,
      nozzle,
      ...(spool === undefined ? {} : { spool }),
      ...(most > 1 ? { perPlate: most, startMinutes: foretold.startS / 60 } : {}),
    }))
  })
}

/** What is still to be planned, from now on: copies that are done or run are out of it, printers that run are busy. */
export function queueNow(content: QueueContent, around: Around, now: Date): Queue {
  const { lines, reels } = around
  const at = (iso: string): number => (Date.parse(iso) - now.getTime()) / MINUTE
  const running = [...lines.values()].filter(({ state }) => state === 'running')
  const machines = content.machines.filter(({ away }) => !away)
  const jobs = content.jobs.flatMap((job): Job[] => {
    const { left } = stateOf(job, lines)
    if (left === 0) return []
    const { id, deadline, wishedBy, notBefore, weight } = job
    return [
      {
        id,
        copies: left,
        ...(deadline === undefined ? {} : { deadline: at(deadline) }),
        ...(wishedBy === undefined ? {} : { wishedBy: at(wishedBy) }),
        ...(notBefore === undefined ? {} : { notBefore: Math.max(0, at(notBefore)) }),
        weight,
        options: optionsOf(job, around),
      },
    ]
  })
  const wanted = new Set(jobs.flatMap(({ options }) => options.flatMap(({ spool }) => spool ?? [])))
  const rules = new Map(content.reels.map((rule) => [rule.spool, rule]))
  // What follows one that is wanted is wanted too.
  for (const key of wanted) {
    const next = rules.get(key)?.followedBy
    if (next !== undefined) wanted.add(next)
  }
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
    ...(content.quiet ? { quiet: quietFrom(content.quiet, now) } : {}),
    spools: reels
      .filter(({ key }) => wanted.has(key))
      .map(({ key, grams, doubtG }) => {
        const { useUp = false, followedBy } = rules.get(key) ?? {}
        return { key, grams, doubtG, ...(useUp ? { useUp } : {}), ...(followedBy === undefined ? {} : { followedBy }) }
      }),
    jobs,
  }
}
