import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Stood } from './asBefore'
import { groundOf } from './ground'
import { listSchedule, orders } from './listSchedule'
import type { Queue } from './queue'
import { schedule } from './schedule'
import { timeline } from './timeline'
import { worthOf } from './worth'

const [longestFirst] = orders as [(typeof orders)[number]]

/** Equal machines without any changes between prints. */
const equal = (minutes: readonly number[], machines: number, more: Partial<Queue> = {}): Queue => {
  const printers = Array.from({ length: machines }, (_, i) => ({ key: `m${i}`, changeMinutes: 0 }))
  const jobs = minutes.map((own, i) => ({ id: `j${i}`, copies: 1, options: printers.map(({ key }) => ({ printer: key, minutes: own })) }))
  return { printers, jobs, ...more }
}

/** By looking at every assignment; written for itself, without anything of the scheduler. */
function optimum(minutes: readonly number[], machines: number): number {
  let best = Number.POSITIVE_INFINITY
  const loads = Array.from({ length: machines }, () => 0)
  const place = (at: number): void => {
    const most = Math.max(...loads)
    if (most >= best) return
    if (at === minutes.length) {
      best = most
      return
    }
    for (let m = 0; m < machines; m++) {
      loads[m]! += minutes[at]!
      place(at + 1)
      loads[m]! -= minutes[at]!
    }
  }
  place(0)
  return best
}

const jobsArb = (most: number) => fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: most })

describe('on equal machines', () => {
  it('the longest first is never worse than Graham’s bound of 1969, and reaches it where he says so', () => {
    fc.assert(
      fc.property(jobsArb(9), fc.integer({ min: 2, max: 3 }), (minutes, machines) => {
        const ground = groundOf(equal(minutes, machines))
        const { makespan } = worthOf(ground, timeline(ground, listSchedule(ground, longestFirst)))
        expect(makespan).toBeLessThanOrEqual((4 / 3 - 1 / (3 * machines)) * optimum(minutes, machines) + 1e-9)
      }),
    )
    // His own worst case: 7 where 6 would do, by two machines.
    const ground = groundOf(equal([3, 3, 2, 2, 2], 2))
    expect(worthOf(ground, timeline(ground, listSchedule(ground, longestFirst))).makespan).toBe(7)
    expect(optimum([3, 3, 2, 2, 2], 2)).toBe(6)
  })

  it('any list is no worse than his bound of 1966', () => {
    fc.assert(
      fc.property(jobsArb(60), fc.integer({ min: 1, max: 8 }), (minutes, machines) => {
        const ground = groundOf(equal(minutes, machines))
        const { makespan } = worthOf(ground, timeline(ground, listSchedule(ground, orders[2]!)))
        const sum = minutes.reduce((a, b) => a + b, 0)
        expect(makespan).toBeLessThanOrEqual(sum / machines + (1 - 1 / machines) * Math.max(...minutes) + 1e-9)
      }),
    )
  })

  it('up to six jobs by three machines come out best', () => {
    fc.assert(
      fc.property(jobsArb(6), fc.integer({ min: 1, max: 3 }), (minutes, machines) => {
        const { makespan, lowerBound } = schedule(equal(minutes, machines))
        const best = optimum(minutes, machines)
        expect(makespan).toBeCloseTo(best, 9)
        expect(lowerBound).toBeLessThanOrEqual(best + 1e-9)
      }),
      { numRuns: 150 },
    )
  })

  it('five of them finish five times the parts, and not one part five times sooner', () => {
    expect(schedule(equal([120, 120, 120, 120, 120], 5)).makespan).toBe(120)
    expect(schedule(equal([120, 120, 120, 120, 120], 1)).makespan).toBe(600)
    expect(schedule(equal([120], 5)).makespan).toBe(120)
  })
})

describe('a schedule', () => {
  it('tells why a job is refused, and what would do', () => {
    const queue = equal([10], 1, {
      jobs: [
        { id: 'none', copies: 1, options: [] },
        { id: 'far', copies: 1, options: [{ printer: 'other', minutes: 10 }] },
        { id: 'thirsty', copies: 1, options: [{ printer: 'm0', minutes: 10, spool: 'storm', grams: 300 }] },
        { id: 'tomorrow', copies: 1, options: [{ printer: 'm0', minutes: 10 }], notBefore: 5000 },
        { id: 'fine', copies: 1, options: [{ printer: 'm0', minutes: 10, spool: 'storm', grams: 40 }] },
      ],
      spools: [{ key: 'storm', grams: 100 }],
      presence: [{ from: 0, to: 600 }],
    })
    const { refused, placed } = schedule(queue)
    expect(placed).toHaveLength(1)
    expect(Object.fromEntries(refused.map(({ job, why }) => [job, why]))).toMatchObject({
      none: expect.stringContaining('no printer'),
      far: expect.stringContaining('other. Allow m0'),
      thirsty: expect.stringContaining('storm will not last: 300 g are needed, about 100 g are left'),
      tomorrow: expect.stringContaining('Nobody is there'),
    })
  })

  it('starts as many as it can where hours end, and tells of how many copies nobody is there', () => {
    const printers = [{ key: 'p', changeMinutes: 0 }]
    const long = { id: 'long', copies: 1, options: [{ printer: 'p', minutes: 500 }] }
    const short = { id: 'short', copies: 9, options: [{ printer: 'p', minutes: 20 }] }
    const { placed, refused } = schedule({ printers, jobs: [long, short], presence: [{ from: 0, to: 100 }] })
    // Five begin by 80 minutes: short ones first, whatever is begun last runs on by itself.
    expect(placed).toHaveLength(5)
    expect(refused.map(({ job }) => job)).toContain('short')
    expect(refused.find(({ job }) => job === 'short')!.why).toMatch(/[45] of 9 copies/)
  })

  it('keeps a deadline where another order can', () => {
    const queue = equal([300, 60], 1)
    const { late, placed } = schedule({ ...queue, jobs: [queue.jobs[0]!, { ...queue.jobs[1]!, deadline: 90 }] })
    expect(late).toEqual([])
    expect(placed.find(({ job }) => job === 1)!.startsAt).toBe(0)
    expect(schedule({ ...queue, jobs: [{ ...queue.jobs[0]!, deadline: 100 }, queue.jobs[1]!] }).late).toEqual(['j0'])
  })

  it('prints through the night, and leaves the next print to the morning', () => {
    const queue = equal([600, 60], 1, {
      presence: [
        { from: 0, to: 120 },
        { from: 900, to: 1100 },
      ],
    })
    const { placed } = schedule(queue)
    // The short one first, then the long one while somebody is still there: all is done by the morning.
    expect(placed.map(({ job, startsAt }) => [job, startsAt])).toEqual([
      [1, 0],
      [0, 60],
    ])
  })

  it('leaves a plan as it stood where another would hardly be better, and moves only what has to', () => {
    const queue = equal([100, 100, 90, 90, 80, 80, 60, 60], 2)
    const stood = (of: Queue, before?: readonly Stood[]) => {
      const { placed, ground, cost } = schedule(of, before ? { before } : { seed: 4 })
      const items = placed
        .toSorted((a, b) => a.startsAt - b.startsAt)
        .map(({ job, option }) => ({ of: ground.queue.jobs[job]!.id, on: ground.queue.jobs[job]!.options[option]!.printer }))
      return { items, cost }
    }
    const first = stood(queue)
    // Equal jobs could be exchanged at no cost; they are not, also when another seed would.
    expect(stood(queue, first.items).items).toEqual(first.items)
    // One is done: the others stay where they are, for the long one ends last anyhow.
    const long = equal([300, 100, 90, 80], 2)
    const all = stood(long)
    const rest = stood({ ...long, jobs: long.jobs.filter(({ id }) => id !== 'j3') }, all.items)
    expect(rest.items).toEqual(all.items.filter(({ of }) => of !== 'j3'))
    // A bad plan does not stay.
    const bad = stood(
      queue,
      queue.jobs.map(({ id }) => ({ of: id, on: 'm0' })),
    )
    expect(bad.cost).toBeLessThan(1.05 * first.cost)
    // What is new is put in, whatever stood.
    const more = stood({ ...queue, jobs: [...queue.jobs, { ...queue.jobs[0]!, id: 'new' }] }, first.items)
    expect(more.items.map(({ of }) => of)).toContain('new')
  })
})
