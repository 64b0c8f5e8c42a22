import { create } from 'zustand'

/** Ways to write a date, and the region that writes so. */
export const dateForms = [
  { id: 'iso', name: '2026-11-28, 14:05' },
  { id: 'en-GB', name: '28 Nov 2026, 14:05' },
  { id: 'en-US', name: 'Nov 28, 2026, 2:05 PM' },
  { id: 'de-DE', name: '28.11.2026, 14:05' },
] as const
export type DateForm = (typeof dateForms)[number]['id']

const KEY = 'sable.dates'
const known = (form: string | null | undefined): DateForm => dateForms.find(({ id }) => id === form)?.id ?? 'iso'

/** How dates are written: chosen once on this machine. */
export const useDates = create<{ readonly form: DateForm }>()(() => ({ form: known(globalThis.localStorage?.getItem(KEY)) }))

export function chooseDates(form: DateForm): void {
  localStorage.setItem(KEY, form)
  useDates.setState({ form })
}

const write = (at: Date | string, how: Intl.DateTimeFormatOptions): string => {
  const { form } = useDates.getState()
  // Swedish writes as ISO 8601 does.
  return new Intl.DateTimeFormat(form === 'iso' ? 'sv-SE' : form, how).format(momentAt(at))
}
/** A day without a time is that day here, not at Greenwich. */
const momentAt = (at: Date | string): Date => new Date(typeof at === 'string' && at.length === 10 ? `${at}T00:00` : at)
/** Abbreviated where a month is named, digits where it is not. */
const dated = (): Intl.DateTimeFormatOptions =>
  useDates.getState().form.startsWith('en') ? { dateStyle: 'medium' } : { day: '2-digit', month: '2-digit', year: 'numeric' }

/** The day of a moment, where the user is. */
export const dayOf = (at: Date | string): string => write(at, dated())
/** A day without its year. */
export const shortDayOf = (at: Date | string): string => {
  const { form } = useDates.getState()
  if (form === 'de-DE') return write(at, { day: '2-digit', month: '2-digit' })
  return new Intl.DateTimeFormat(form === 'iso' ? 'en-GB' : form, { day: 'numeric', month: 'short' }).format(momentAt(at))
}
/** A time of the day. */
export const clockOf = (at: Date | string): string => write(at, { timeStyle: 'short' })
export const momentOf = (at: Date | string): string => `${dayOf(at)}, ${clockOf(at)}`
