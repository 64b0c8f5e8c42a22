import { describe, expect, it } from 'vitest'
import { learnedReel, remainingOf, type Spool } from '../shelf/spool'
import { machineUse, nozzleNow, spoolNow, stretchesOf, type Took } from './book'

const spool: Spool = {
  key: 'amber',
  name: 'Amber',
  material: 'petg',
  netG: 1000,
  weighings: [
    { on: '2026-03-01', grossG: 900 },
    { on: '2026-03-20', grossG: 780 },
  ],
  dried: [],
  defaults: {},
}
const print = (at: string, reel: Partial<Took['reels'][number]> = {}, more: Partial<Took> = {}): Took => ({
  at,
  name: 'shade',
  printer: 'dory',
  nozzle: 'bore-0.4',
  hours: 2,
  cost: 1.5,
  isAbrasive: false,
  reels: [{ spool: 'amber', foretoldG: 40, ...reel }],
  ...more,
})

describe('a reel between two times on the scale', () => {
  it('lost what its prints took, and what nobody can tell', () => {
    const [stretch] = stretchesOf(spool, [
      print('2026-03-05T10:00:00.000Z'),
      print('2026-03-08T10:00:00.000Z'),
      print('2026-04-01T10:00:00.000Z'),
    ])
    expect(stretch).toMatchObject({ goneG: 120, printedG: 80, unexplainedG: 40, prints: 2 })
  })

  it('is weighed by its prints too, before and after', () => {
    const stretches = stretchesOf({ ...spool, weighings: [] }, [
      print('2026-03-05T10:00:00.000Z', { beforeG: 880, afterG: 838 }),
      print('2026-03-08T10:00:00.000Z', { beforeG: 830, afterG: 791 }),
    ])
    // Between them 8 g are gone, of which no print tells.
    expect(stretches.map(({ goneG, unexplainedG }) => [goneG, unexplainedG])).toEqual([
      [39, 0],
      [8, 8],
      [42, 0],
    ])
  })
})

describe('a reel as it is by now', () => {
  it('holds what it held when it was weighed last, less what was printed since', () => {
    const now = spoolNow(spool, [print('2026-03-05T10:00:00.000Z'), print('2026-04-01T10:00:00.000Z')])
    expect(now.weighings.at(-1)).toEqual({ on: '2026-03-20', grossG: 740 })
    expect(spoolNow(spool, [])).toBe(spool)
  })

  it('is what its last print left on the scale', () => {
    const now = spoolNow(spool, [print('2026-04-01T10:00:00.000Z', { beforeG: 770, afterG: 731 })])
    expect(now.weighings.at(-1)).toEqual({ on: '2026-04-01', grossG: 731 })
  })

  it('that ended in a print is empty, and its weight tells what other reels of its maker weigh', () => {
    const ended = spoolNow({ ...spool, maker: 'Ebbwick' }, [
      print('2026-04-01T10:00:00.000Z', { beforeG: 260, afterG: 231, ranOut: true }),
      print('2026-04-02T10:00:00.000Z', { spool: 'other' }),
    ])
    expect(ended.empty).toBe(true)
    const full: Spool = { ...spool, key: 'next', maker: 'Ebbwick', weighings: [{ on: '2026-04-02', grossG: 1231 }] }
    expect(learnedReel('Ebbwick', [ended, full])).toBe(231)
    expect(remainingOf(full, [ended, full], 1.27, 1.75)).toMatchObject({ grams: 1000, from: 'weighed' })
    // Filled anew and weighed since, it is empty no more.
    const refilled = spoolNow({ ...spool, weighings: [{ on: '2026-04-05', grossG: 1200 }] }, [
      print('2026-04-01T10:00:00.000Z', { afterG: 231, ranOut: true }),
    ])
    expect(refilled.empty).toBeUndefined()
  })

  it('says nothing where it was never weighed', () => {
    const fresh = { ...spool, weighings: [] }
    expect(spoolNow(fresh, [print('2026-04-01T10:00:00.000Z')])).toBe(fresh)
  })
})

describe('nozzle and machine', () => {
  const prints = [print('2026-03-05T10:00:00.000Z', {}, { isAbrasive: true }), print('2026-03-06T10:00:00.000Z')]

  it('wear by what ran through them', () => {
    const nozzle = { key: 'bore-0.4', name: 'Brass', bore: 0.4, hoursRun: 10 }
    expect(nozzleNow(nozzle, prints)).toMatchObject({ hoursRun: 14, abrasiveGrams: 40 })
    expect(nozzleNow({ ...nozzle, key: 'other' }, prints).hoursRun).toBe(10)
  })

  it('cost what they ran', () => {
    expect(machineUse('dory', prints)).toEqual({ prints: 2, hours: 4, cost: 3 })
  })
})
