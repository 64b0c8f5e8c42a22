import { describe, expect, it } from 'vitest'
import { drawnEnds } from './draws'
import type { Queue } from './queue'
import { schedule } from './schedule'
import { spoolUses } from './spools'

const one = (more: object = {}, printer: object = {}): Queue => ({
  printers: [{ key: 'p', changeMinutes: 10, ...printer }],
  jobs: [{ id: 'j', copies: 1, options: [{ printer: 'p', minutes: 100, low: 80, high: 125, grams: 60, spool: 's', ...more }] }],
  spools: [{ key: 's', grams: 100, doubtG: 10 }],
})
const drawn = (queue: Queue, draws = 4000) => {
  const { ground, lanes } = schedule(queue)
  return drawnEnds(ground, lanes, 5, draws)[0]!
}

describe('drawn worlds', () => {
  it('give back the range of a single print', () => {
    const [end] = drawn(one())
    expect(end!.low).toBeGreaterThan(78)
    expect(end!.low).toBeLessThan(82)
    expect(end!.high).toBeGreaterThan(122)
    expect(end!.high).toBeLessThan(128)
    expect(drawn(one({ low: undefined, high: undefined }))[0]).toMatchObject({ low: 100, high: 100 })
  })

  it('tell how often a deadline is missed: half the time at the median, seldom at the upper end', () => {
    const by = (deadline: number) => drawn({ ...one(), jobs: [{ ...one().jobs[0]!, deadline }] })[0]!.lateShare
    expect(Math.abs(by(100) - 0.5)).toBeLessThan(0.03)
    expect(Math.abs(by(125) - 0.1)).toBeLessThan(0.02)
    expect(by(300)).toBe(0)
  })

  it('print again what fails, as often as the printer’s prints do', () => {
    const queue = one({ low: undefined, high: undefined }, { fails: 0.3 })
    const share = drawn({ ...queue, jobs: [{ ...queue.jobs[0]!, deadline: 100.5 }] })[0]!.lateShare
    expect(Math.abs(share - 0.3)).toBeLessThan(0.03)
    expect(drawn(queue)[0]!.high).toBeGreaterThan(150)
  })

  it('spread farther the later it gets', () => {
    const queue = one()
    const ends = drawn({ ...queue, jobs: [{ ...queue.jobs[0]!, copies: 6 }] })
    const width = ends.map(({ low, high }) => high - low)
    expect(width.at(-1)!).toBeGreaterThan(2 * width[0]!)
  })
})

describe('a reel', () => {
  it('lasts surely, perhaps or not, and the print at which it runs out is told', () => {
    const uses = (grams: number, copies = 1) => {
      const queue = { ...one({ grams }), jobs: [{ ...one({ grams }).jobs[0]!, copies }] }
      return spoolUses(queue, schedule(queue).placed)[0]!
    }
    expect(uses(60)).toMatchObject({ lasts: 'surely', usedG: 60, leftG: 40 })
    expect(uses(95)).toMatchObject({ lasts: 'perhaps' })
    expect(uses(60, 2)).toMatchObject({ lasts: 'no', runsOutAt: 'j', leftG: -20 })
  })

  it('that has too little is passed over where another will do', () => {
    const queue: Queue = {
      ...one(),
      jobs: [{ id: 'j', copies: 2, options: ['s', 't'].map((spool) => ({ printer: 'p', minutes: 100, grams: 60, spool })) }],
      spools: [
        { key: 's', grams: 100 },
        { key: 't', grams: 100 },
      ],
    }
    expect(spoolUses(queue, schedule(queue).placed).map(({ lasts }) => lasts)).toEqual(['surely', 'surely'])
  })
})
