import { describe, expect, it } from 'vitest'
import { told } from './plan'
import type { Queue } from './queue'
import { schedule } from './schedule'
import { nameOfTwin, whatIf } from './whatIf'

const queue: Queue = {
  printers: [
    { key: 'p', changeMinutes: 10 },
    { key: 'q', changeMinutes: 10 },
  ],
  presence: [
    { from: 0, to: 100 },
    { from: 1000, to: 1400 },
  ],
  jobs: [
    {
      id: 'both',
      copies: 4,
      options: [
        { printer: 'p', minutes: 120 },
        { printer: 'p', minutes: 90 },
        { printer: 'q', minutes: 100 },
      ],
    },
    { id: 'only', copies: 1, options: [{ printer: 'q', minutes: 60 }] },
  ],
}
const endOf = (of: Queue) => schedule(of)

describe('what if', () => {
  const variants = new Map(whatIf(queue, (key) => key.toUpperCase()).map((one) => [one.id, one]))

  it('one more is never later, one away never sooner, and what only that one prints is refused', () => {
    const { makespan } = endOf(queue)
    expect(endOf(variants.get('more p')!.queue).makespan).toBeLessThanOrEqual(makespan)
    expect(endOf(variants.get('more q')!.queue).makespan).toBeLessThanOrEqual(makespan)
    const away = endOf(variants.get('without q')!.queue)
    expect(away.refused.map(({ job }) => job)).toEqual(['only'])
    expect(endOf(variants.get('without p')!.queue).makespan).toBeGreaterThanOrEqual(makespan)
    expect(variants.get('without q')!.words).toBe('Q is away')
    expect(variants.get('more q')!.queue.printers.map(({ key }) => nameOfTwin(key, (own) => own.toUpperCase()))).toEqual([
      'P',
      'Q',
      'Q, 2nd',
    ])
  })

  it('always somebody there is never later, and the fastest way leaves no slower one on the same printer', () => {
    expect(endOf(variants.get('always')!.queue).makespan).toBeLessThanOrEqual(endOf(queue).makespan)
    expect(variants.get('fastest')!.queue.jobs[0]!.options.map(({ minutes }) => minutes)).toEqual([90, 100])
  })

  it('a plan tells the whole with its range, in the order of starting', () => {
    const plan = told(endOf(queue))
    expect(plan.items.map(({ startsAt }) => startsAt)).toEqual([...plan.items.map(({ startsAt }) => startsAt)].sort((a, b) => a - b))
    expect(plan.low).toBeLessThanOrEqual(plan.makespan + 1e-9)
    expect(plan.high).toBeGreaterThanOrEqual(plan.makespan - 1e-9)
    expect(plan.items.filter(({ of }) => of === 'both').map(({ copy }) => copy)).toEqual([0, 1, 2, 3])
  })
})
