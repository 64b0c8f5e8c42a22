import type { Queue } from './queue'

/** A queue as it would be if something were otherwise. */
export interface Variant {
  readonly id: string
  readonly words: string
  readonly queue: Queue
}

const TWIN = ', 2nd'
/** The key of another printer of the same kind. */
export const twinOf = (key: string): string => `${key}${TWIN}`
/** What a printer is called, another of its kind by the one that is there. */
export const nameOfTwin = (key: string, nameOf: (printer: string) => string): string =>
  key.endsWith(TWIN) ? `${nameOf(key.slice(0, -TWIN.length))}${TWIN}` : nameOf(key)

/** Of larger queues nothing is asked: each variant is planned as long as the whole. */
const [MOST_COPIES, MOST_PRINTERS] = [150, 8]

/** @param nameOf what a printer is called */
export function whatIf(queue: Queue, nameOf: (printer: string) => string): Variant[] {
  const { printers, jobs, presence } = queue
  if (printers.length > MOST_PRINTERS || jobs.reduce((sum, { copies }) => sum + copies, 0) > MOST_COPIES) return []
  const more = (key: string): Queue => {
    const twin = twinOf(key)
    return {
      ...queue,
      printers: [...printers, { ...printers.find((one) => one.key === key)!, key: twin, freeAt: 0 }],
      jobs: jobs.map((job) => ({
        ...job,
        options: job.options.flatMap((way) => (way.printer === key ? [way, { ...way, printer: twin }] : [way])),
      })),
    }
  }
  const without = (key: string): Queue => ({
    ...queue,
    printers: printers.filter((one) => one.key !== key),
    // What can only be printed there is refused then, and told.
    jobs: jobs.map((job) => ({
      ...job,
      options: job.options.some(({ printer }) => printer !== key) ? job.options.filter(({ printer }) => printer !== key) : job.options,
    })),
  })
  const fastest: Queue = {
    ...queue,
    jobs: jobs.map((job) => ({
      ...job,
      options: job.options.filter((way) => !job.options.some((other) => other.printer === way.printer && other.minutes < way.minutes)),
    })),
  }
  const { presence: _, ...always } = queue
  return [
    ...printers.map(({ key }) => ({ id: `more ${key}`, words: `one ${nameOf(key)} more`, queue: more(key) })),
    ...(printers.length > 1
      ? printers.map(({ key }) => ({ id: `without ${key}`, words: `${nameOf(key)} is away`, queue: without(key) }))
      : []),
    ...(presence ? [{ id: 'always', words: 'somebody is always there', queue: always }] : []),
    ...(jobs.some(({ options }) => new Set(options.map(({ printer }) => printer)).size < options.length)
      ? [{ id: 'fastest', words: 'each job its fastest way', queue: fastest }]
      : []),
  ]
}
