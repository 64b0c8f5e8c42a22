import type { PrintLine } from '@sable/contract/prints'
import { stateOf } from '@sable/contract/queueNow'
import type { QueueContent, QueueJob } from '@sable/contract/queues'

/** What a plan was made from. */
export interface Basis {
  readonly content: QueueContent
  readonly lines: ReadonlyMap<string, PrintLine>
}

const differs = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b)

/** The jobs of which something was said, or of which the log tells something new. */
export const touchedJobs = (before: Basis, after: Basis): ReadonlySet<string> =>
  new Set(after.content.jobs.filter((job) => reasonsOf(job, before, after, (key) => key).length > 0).map(({ id }) => id))

/** Why a plan is another than the one before it: what was said, and what the log tells since. Nothing where only time went on. */
export function reasonsBetween(before: Basis, after: Basis, printerName: (key: string) => string): string[] {
  const [was, is] = [before.content, after.content]
  const jobs = is.jobs.flatMap((job) => reasonsOf(job, before, after, printerName))
  const out = was.jobs.filter(({ id }) => !is.jobs.some((job) => job.id === id)).map(({ name }) => `${name} is out`)
  const machines = is.machines.flatMap((machine) => {
    const old = was.machines.find(({ printer }) => printer === machine.printer)
    const name = printerName(machine.printer)
    if (!old) return [`${name} is there`]
    if (old.away !== machine.away) return [machine.away ? `${name} is away` : `${name} is back`]
    return differs(old, machine) ? [`${name} takes other times to be made ready`] : []
  })
  const gone = was.machines
    .filter(({ printer }) => !is.machines.some((machine) => machine.printer === printer))
    .map(({ printer }) => `${printerName(printer)} is out`)
  return [
    ...jobs,
    ...out,
    ...machines,
    ...gone,
    ...(differs(was.hours, is.hours) ? ['somebody is there at other hours'] : []),
    ...(differs(was.quiet, is.quiet) ? [is.quiet ? `quiet hours are ${is.quiet.from} to ${is.quiet.to}` : 'there are no quiet hours'] : []),
    ...(differs(was.reels, is.reels) ? ['reels are used in another way'] : []),
  ]
}

function reasonsOf(job: QueueJob, before: Basis, after: Basis, printerName: (key: string) => string): string[] {
  const old = before.content.jobs.find(({ id }) => id === job.id)
  return old ? [...inTheLog(old, job, before, after), ...said(old, job, printerName)] : [`${job.name} is new`]
}

/** What became of its prints. */
function inTheLog(old: QueueJob, job: QueueJob, before: Basis, after: Basis): string[] {
  const [was, is] = [stateOf(old, before.lines), stateOf(job, after.lines)]
  return [
    ...(is.failed > was.failed ? [`${job.name} failed`] : []),
    ...(is.done > was.done ? [`${job.name} is done`] : []),
    ...(is.running.length > was.running.length ? [`${job.name} was begun`] : []),
  ]
}

/** What somebody wants otherwise of it. */
function said(old: QueueJob, job: QueueJob, printerName: (key: string) => string): string[] {
  const { name } = job
  return [
    ...(job.copies === old.copies ? [] : [`${name} is wanted ${job.copies === 1 ? 'once' : `${job.copies} times`}`]),
    ...(job.heldTo === old.heldTo
      ? []
      : [job.heldTo === undefined ? `${name} may go anywhere` : `${name} is held to ${printerName(job.heldTo)}`]),
    ...(job.deadline === old.deadline ? [] : [`${name} is wanted by another hour`]),
    ...(job.notBefore === old.notBefore ? [] : [job.notBefore === undefined ? `${name} may begin at once` : `${name} is put off`]),
    ...(job.wishedBy === old.wishedBy || job.wishedBy === undefined ? [] : [`${name} is wished for earlier`]),
    ...(differs(old.ways, job.ways) ? [`${name} has other ways`] : []),
    ...(job.reel === old.reel ? [] : [`${name} is printed off ${job.reel === 'own' ? 'its own reel' : 'other reels as well'}`]),
    ...(job.plates === old.plates ? [] : [`copies of ${name} ${job.plates ? 'share plates' : 'have a plate each'}`]),
  ]
}
