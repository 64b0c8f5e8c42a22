import type { Window } from '@sable/core/queue/queue'
import type { QueueContent } from './queues'

const MINUTE = 60_000
/** Hours are laid out for so many days. */
const DAYS = 21

/** Each of the days that are looked at, at its midnight; in the time of this place. */
function daysFrom(now: Date, first = 0): Date[] {
  return Array.from({ length: DAYS - first }, (_, i) => new Date(now.getFullYear(), now.getMonth(), now.getDate() + first + i))
}

/** Minutes from now to an hour of a day. */
function minutesTo(date: Date, clock: string, now: Date): number {
  const [hour = 0, minute = 0] = clock.split(':').map(Number)
  return (new Date(date.getFullYear(), date.getMonth(), date.getDate(), hour, minute).getTime() - now.getTime()) / MINUTE
}

const stillAhead = (windows: readonly Window[]): Window[] =>
  windows.map(({ from, to }) => ({ from: Math.max(0, from), to })).filter(({ from, to }) => to > from)

/** Hours of the week as windows from now on, minutes. */
export const windowsFrom = (hours: QueueContent['hours'], now: Date): Window[] =>
  stillAhead(
    daysFrom(now).flatMap((date) =>
      hours
        .filter(({ days }) => days.includes((date.getDay() + 6) % 7))
        .map(({ from, to }) => ({ from: minutesTo(date, from, now), to: minutesTo(date, to, now) })),
    ),
  )

/** Quiet hours of each day as windows from now on, minutes; those that began yesterday as well. */
export const quietFrom = ({ from, to }: NonNullable<QueueContent['quiet']>, now: Date): Window[] =>
  stillAhead(
    daysFrom(now, -1).map((date) => {
      const until = to > from ? date : new Date(date.getFullYear(), date.getMonth(), date.getDate() + 1)
      return { from: minutesTo(date, from, now), to: minutesTo(until, to, now) }
    }),
  )
