import { describe, expect, it } from 'vitest'
import { groundOf } from './ground'
import { lowerBound } from './lowerBound'
import type { JobOption, Queue, QueueSpool } from './queue'
import { schedule } from './schedule'
import { spoolUses } from './spools'
import { toBuy } from './toBuy'
import { worthOf } from './worth'

const DAY = 1440
const one = (options: Partial<JobOption>, more: Partial<Queue> = {}, copies = 1): Queue => ({
  printers: [{ key: 'p', changeMinutes: 10, spoolMinutes: 5 }],
  jobs: [{ id: 'j', copies, options: [{ printer: 'p', minutes: 100, ...options }] }],
  ...more,
})
const evenings = Array.from({ length: 7 }, (_, day) => ({ from: day * DAY, to: day * DAY + 240 }))

describe('plates', () => {
  it('three copies on one plate heat once, and need nobody between them', () => {
    const { placed, makespan } = schedule(one({ perPlate: 3, startMinutes: 6 }, {}, 3))
    expect(placed.map(({ startsAt, endsAt, isOnPlate }) => [startsAt, endsAt, isOnPlate ?? false])).toEqual([
      [0, 100, false],
      [100, 194, true],
      [194, 288, true],
    ])
    expect(makespan).toBe(288)
    // By hand without: 3 × 100 and two changes of 10.
    expect(schedule(one({ startMinutes: 6 }, {}, 3)).makespan).toBe(320)
  })

  it('a plate runs on through the night; one copy after another by hand waits for the morning', () => {
    const night = { presence: [{ from: 0, to: 60 }, ...evenings.slice(1)] }
    expect(schedule(one({ perPlate: 4 }, night, 4)).makespan).toBe(400)
    expect(schedule(one({}, night, 4)).makespan).toBeGreaterThan(DAY)
  })

  it('a full plate is cleared away before the next', () => {
    const { placed } = schedule(one({ perPlate: 2 }, {}, 3))
    expect(placed.map(({ startsAt }) => startsAt)).toEqual([0, 100, 210])
  })
})

describe('quiet hours', () => {
  const quiet = Array.from({ length: 7 }, (_, day) => ({ from: day * DAY + 300, to: day * DAY + 800 }))

  it('nothing is printed in them: what would not be done before begins after', () => {
    const { placed } = schedule(one({}, { quiet }, 4))
    expect(placed.map(({ startsAt }) => startsAt)).toEqual([0, 110, 800, 910])
  })

  it('the upper end of the range counts, for a print that takes longer would be heard', () => {
    expect(schedule(one({ low: 90, high: 320 }, { quiet })).placed[0]!.startsAt).toBe(800)
  })

  it('what is longer than the time between them is refused with both times', () => {
    const { refused, placed } = schedule(one({ minutes: 1000 }, { quiet }))
    expect(placed).toEqual([])
    expect(refused[0]!.why).toMatch(/takes up to 16 h 40 min, and between quiet hours there are 15 h 40 min/)
  })
})

describe('reels', () => {
  const reels = (...spools: QueueSpool[]) => ({ spools })
  const black = { spool: 'black', grams: 60 }

  it('a print goes on from the next reel: it waits until somebody has changed it', () => {
    const queue = one(black, {
      ...reels({ key: 'black', grams: 15, followedBy: 'black 2' }, { key: 'black 2', grams: 200 }),
      // A quarter of it is printed when the reel runs out, at 25 min; they come back at 40, and have changed it at 45.
      presence: [
        { from: 0, to: 20 },
        { from: 40, to: 400 },
      ],
    })
    const { placed, refused } = schedule(queue)
    expect(refused).toEqual([])
    expect(placed[0]).toMatchObject({ startsAt: 0, endsAt: 120 })
    expect(placed[0]!.takes).toEqual([
      { spool: 'black', grams: 15 },
      { spool: 'black 2', grams: 45, from: 45 },
    ])
    const uses = spoolUses(queue, placed)
    expect(uses.map(({ key, usedG, leftG, lasts }) => [key, usedG, leftG, lasts])).toEqual([
      ['black', 15, 0, 'surely'],
      ['black 2', 45, 155, 'surely'],
    ])
  })

  it('what is lacking is bought as whole reels, of one colour together, doubts against it', () => {
    const like = (key: string, color: string) => ({ key, name: key, material: 'pla', color, netG: 1000, price: 20 })
    const use = (key: string, grams: number, usedG: number) => ({
      key,
      grams,
      doubtG: 10,
      usedG,
      leftG: grams - usedG,
      lasts: 'no' as const,
    })
    const buys = toBuy(
      [use('a', 100, 700), use('b', 100, 605), use('c', 500, 495), use('d', 500, 480)],
      [like('a', '#000000'), like('b', '#000000'), like('c', '#ff0000'), like('d', '#ff0000')],
    )
    // 600 + 10 and 505 + 10 of black are two reels; 5 more of red than is sure are one.
    expect(buys.map(({ like: { key }, grams, reels, cost }) => [key, grams, reels, cost])).toEqual([
      ['a', 1125, 2, 40],
      ['c', 5, 1, 20],
    ])
  })

  it('an empty one is not begun with', () => {
    const { placed } = schedule(one(black, reels({ key: 'black', grams: 0.4, followedBy: 'b' }, { key: 'b', grams: 200 })))
    expect(placed[0]!.takes).toEqual([{ spool: 'b', grams: 60 }])
    expect(placed[0]!.endsAt).toBe(100)
  })

  it('where both together do not have it, that is told', () => {
    const { refused } = schedule(one(black, reels({ key: 'black', grams: 15, followedBy: 'b' }, { key: 'b', grams: 20 })))
    expect(refused[0]!.why).toMatch(/60 g are needed, about 15 g are left, and the next reel does not have the rest/)
  })

  it('reels that name each other in a ring end', () => {
    const ring = reels({ key: 'black', grams: 30, followedBy: 'b' }, { key: 'b', grams: 40, followedBy: 'black' })
    expect(schedule(one(black, ring)).placed[0]!.takes?.map(({ grams }) => grams)).toEqual([30, 30])
  })

  it('one that is to be used up is taken where another would do as well', () => {
    const either = (useUp: 'a' | 'b'): (string | undefined)[] => {
      const { placed, ground } = schedule({
        printers: [{ key: 'p', changeMinutes: 10 }],
        jobs: [{ id: 'j', copies: 1, options: ['a', 'b'].map((spool) => ({ printer: 'p', minutes: 100, spool, grams: 40 })) }],
        spools: ['a', 'b'].map((key) => ({ key, grams: 50, useUp: key === useUp })),
      })
      expect(worthOf(ground, placed).leftOverG).toBeCloseTo(10, 9)
      return placed.map(({ option }) => ground.queue.jobs[0]!.options[option]!.spool)
    }
    expect(either('a')).toEqual(['a'])
    expect(either('b')).toEqual(['b'])
  })
})

describe('the lower bound', () => {
  it('counts one print a night: ten long prints with an hour a day take nine nights', () => {
    const hour = Array.from({ length: 20 }, (_, day) => ({ from: day * DAY, to: day * DAY + 60 }))
    const queue = one({ minutes: 600 }, { presence: hour }, 10)
    const bound = lowerBound(groundOf(queue))
    // One a day begins, after ten minutes of clearing: the tenth on the tenth day.
    expect(schedule(queue).makespan).toBe(9 * DAY + 610)
    expect(bound).toBeLessThanOrEqual(9 * DAY + 610)
    expect(bound).toBeGreaterThan(8 * DAY)
  })

  it('does not count nights that a plate prints through', () => {
    const queue = one({ minutes: 600, perPlate: 10 }, { presence: [{ from: 0, to: 60 }] }, 10)
    expect(schedule(queue).makespan).toBe(6000)
    expect(lowerBound(groundOf(queue))).toBeLessThanOrEqual(6000)
  })
})

it('what is wished for moves earlier where that costs no deadline', () => {
  const printers = [{ key: 'p', changeMinutes: 0 }]
  const job = (id: string, more: object = {}) => ({ id, copies: 1, options: [{ printer: 'p', minutes: 60 }], ...more })
  const first = (jobs: Queue['jobs']): string => {
    const { placed, ground, late } = schedule({ printers, jobs })
    expect(late).toEqual([])
    return ground.queue.jobs[placed.toSorted((a, b) => a.startsAt - b.startsAt)[0]!.job]!.id
  }
  expect(first([job('a'), job('b', { wishedBy: 60 })])).toBe('b')
  expect(first([job('a', { wishedBy: 60 }), job('b')])).toBe('a')
  expect(first([job('a', { deadline: 60 }), job('b', { wishedBy: 60 })])).toBe('a')
})
