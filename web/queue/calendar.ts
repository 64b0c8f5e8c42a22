import type { QueuePlan } from '@sable/core/queue/plan'
import ical from 'ical-generator'

/** A plan as a calendar file (RFC 5545): an event for each print, from its start to its end, and one for each time that somebody makes a printer ready. */
export function planCalendar(
  plan: QueuePlan,
  now: Date,
  name: string,
  nameOf: (job: string) => string,
  printerOf: (key: string) => string,
): string {
  const at = (minute: number): Date => new Date(now.getTime() + 60_000 * minute)
  const calendar = ical({ name, prodId: { company: 'Sable Lantern', product: 'Queue' } })
  for (const { of, on, copy, setUpAt, startsAt, endsAt, low, high } of plan.items) {
    const what = `${nameOf(of)}${copy > 0 ? `, copy ${copy + 1}` : ''}`
    const until = (minute: number): string => at(minute).toISOString().slice(0, 16).replace('T', ' ')
    calendar.createEvent({
      id: `${of}-${copy}-${on}@sable-lantern`,
      start: at(startsAt),
      end: at(endsAt),
      stamp: now,
      summary: `${printerOf(on)}: ${what}`,
      description: `It ends between ${until(low)} and ${until(high)} UTC in four of five.`,
    })
    if (startsAt > setUpAt)
      calendar.createEvent({
        id: `${of}-${copy}-${on}-ready@sable-lantern`,
        start: at(setUpAt),
        end: at(startsAt),
        stamp: now,
        summary: `Make ${printerOf(on)} ready for ${what}`,
      })
  }
  return calendar.toString()
}
