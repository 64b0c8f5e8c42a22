import { afterEach, describe, expect, it } from 'vitest'
import { clockOf, type DateForm, dateForms, dayOf, momentOf, useDates } from './dates'

const at = new Date(2026, 10, 28, 14, 5)
afterEach(() => useDates.setState({ form: 'iso' }))

describe('dates', () => {
  it.each(dateForms)('are written as $name when that is chosen', ({ id, name }) => {
    useDates.setState({ form: id as DateForm })
    // The way to the afternoon's mark is a narrow space in some releases of the data.
    expect(momentOf(at).replace(/\s/g, ' ')).toBe(name)
  })

  it('are the day where the user is, not that of Greenwich', () => {
    expect(dayOf(new Date(2026, 0, 1, 0, 30))).toBe('2026-01-01')
    expect(clockOf(new Date(2026, 0, 1, 0, 30))).toBe('00:30')
    expect(dayOf('2026-03-05')).toBe('2026-03-05')
  })
})
