import type { QueueContent } from '@sable/contract/queues'
import { mergeRecord } from '../api/kept/mergeRecord'

/**
 * What somebody changed in a queue, put into what it says by now: machines, reels and jobs one by one, everything else field by field. What was changed
 * a moment before and is still on its way stands, and so does what another window changed.
 */
export const mergeQueue = (before: QueueContent, after: QueueContent, latest: QueueContent): QueueContent => ({
  ...mergeRecord(before, after, latest),
  machines: mergeList(before.machines, after.machines, latest.machines, ({ printer }) => printer),
  reels: mergeList(before.reels, after.reels, latest.reels, ({ spool }) => spool),
  jobs: mergeList(before.jobs, after.jobs, latest.jobs, ({ id }) => id),
})

function mergeList<One extends object>(
  before: readonly One[],
  after: readonly One[],
  latest: readonly One[],
  keyOf: (one: One) => string,
): One[] {
  const [was, is, now] = [before, after, latest].map((all) => new Map(all.map((one) => [keyOf(one), one] as const)))
  const kept = latest.flatMap((one) => {
    const [own, next] = [was!.get(keyOf(one)), is!.get(keyOf(one))]
    if (own === undefined) return [one]
    return next === undefined ? [] : [mergeRecord(own, next, one)]
  })
  const added = after.filter((one) => !was!.has(keyOf(one)) && !now!.has(keyOf(one)))
  const common = (all: readonly One[], others: ReadonlyMap<string, One>): string =>
    all
      .map(keyOf)
      .filter((key) => others.has(key))
      .join()
  if (added.length === 0 && common(before, is!) === common(after, was!)) return kept
  // What is put in, or moved, stands where it was put; what only others know of comes last.
  const places = [...is!.keys()]
  const placeOf = (one: One): number => (is!.has(keyOf(one)) ? places.indexOf(keyOf(one)) : places.length)
  return [...kept, ...added].sort((a, b) => placeOf(a) - placeOf(b))
}
