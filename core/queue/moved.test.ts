import { describe, expect, it } from 'vitest'
import { movedBetween } from './moved'
import { type QueuePlan, told } from './plan'
import type { Job, Queue } from './queue'
import { schedule } from './schedule'

const job = (id: string, minutes: number, printers: readonly string[] = ['p', 'q'], more: Partial<Job> = {}): Job => ({
  id,
  copies: 1,
  options: printers.map((printer) => ({ printer, minutes })),
  ...more,
})
const planOf = (jobs: readonly Job[], more: Partial<Queue> = {}): QueuePlan =>
  told(schedule({ printers: ['p', 'q'].map((key) => ({ key, changeMinutes: 0 })), jobs, ...more }))
const onP = ['p']

describe('what moved from one plan to the next', () => {
  it('nothing where all is the same, also ten minutes on', () => {
    const plan = planOf([job('a', 100), job('b', 90)])
    expect(movedBetween({ plan, now: 0 }, { plan, now: 0 })).toEqual([])
    expect(movedBetween({ plan, now: 0 }, { plan, now: 10 * 60_000 })).toEqual([])
    expect(movedBetween({ plan, now: 0 }, { plan, now: 20 * 60_000 }).map(({ laterBy }) => laterBy)).toEqual([20, 20])
  })

  it('a printer that is away moves what stood there, and what has to wait for it', () => {
    const before = planOf([job('a', 100), job('b', 90, onP, { deadline: 95 })])
    const after = planOf([job('a', 100, onP), job('b', 90, onP, { deadline: 95 })])
    expect(before.late).toEqual([])
    const [only] = movedBetween({ plan: before, now: 0 }, { plan: after, now: 0 })
    expect(only).toEqual({ job: 'a', from: ['q'], to: ['p'], laterBy: 90 })
  })

  it('a failed copy that is printed again makes others late', () => {
    const rest = [job('b', 90, onP, { deadline: 200 })]
    const before = planOf([job('a', 100, onP, { deadline: 100 }), ...rest])
    const after = planOf([job('a', 100, onP, { copies: 2, deadline: 100, weight: 50 }), ...rest])
    expect(movedBetween({ plan: before, now: 0 }, { plan: after, now: 0 })).toEqual([
      { job: 'a', from: ['p'], to: ['p'], laterBy: 100, late: 'now' },
      { job: 'b', from: ['p'], to: ['p'], laterBy: 100, late: 'now' },
    ])
    expect(movedBetween({ plan: after, now: 0 }, { plan: before, now: 0 }).map(({ late }) => late)).toEqual(['no longer', 'no longer'])
  })

  it('tells what is new and what cannot be planned any more, not what is done', () => {
    const before = planOf([job('a', 100), job('b', 90)])
    const after = planOf([job('b', 90, ['gone']), job('c', 90)])
    expect(movedBetween({ plan: before, now: 0 }, { plan: after, now: 0 })).toEqual([
      { job: 'b', from: ['q'], to: [], isRefused: true },
      { job: 'c', from: [], to: ['p'], isNew: true },
    ])
  })
})
