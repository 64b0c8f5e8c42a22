import type { QueuePlan } from '@sable/core/queue/plan'
import { describe, expect, it } from 'vitest'
import { planCalendar } from './calendar'

const item = {
  job: 0,
  copy: 1,
  option: 0,
  printer: 0,
  as: { printer: 'dory', minutes: 60 },
  of: 'hook',
  on: 'dory',
  setUpAt: 50,
  startsAt: 60,
  endsAt: 120,
  low: 115,
  high: 130,
  lateShare: 0,
}
const plan: QueuePlan = { items: [item], makespan: 120, low: 115, high: 130, lowerBound: 120, late: [], refused: [], spools: [] }

describe('a plan as a calendar', () => {
  it('has its prints and what a person does for them, at their times, with lines ended and folded as RFC 5545 wants', () => {
    const text = planCalendar(
      plan,
      new Date('2026-11-28T08:00:00Z'),
      'The fair',
      () => 'carry hook',
      () => 'Dory 220',
    )
    expect(text.startsWith('BEGIN:VCALENDAR\r\n')).toBe(true)
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2)
    expect(text).toContain('SUMMARY:Dory 220: carry hook\\, copy 2')
    expect(text).toContain('DTSTART:20261128T090000Z')
    expect(text).toContain('DTEND:20261128T100000Z')
    expect(text).toContain('SUMMARY:Make Dory 220 ready for carry hook\\, copy 2')
    for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
  })
})
