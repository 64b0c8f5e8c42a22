import { frozenPrintSchema } from '@sable/contract/prints'
import type { Doubtful } from '@sable/core/doubt/doubt'
import { foretoldPlate } from '@sable/core/log/foretoldPlate'
import { wholeRanges } from '@sable/core/log/foretoldPrint'
import { setupOf } from '@sable/core/testing/setups'
import { describe, expect, it } from 'vitest'
import type { ToldFigures } from '../predictions/worker/plating'
import { turnedBy } from './PlateDrawing'
import { frozenPlate } from './plateIntoQueue'
import { type Item, sharesSetup, whyNot } from './usePlateColumns'

const setup = setupOf()
const figures: ToldFigures = {
  parts: [
    { name: 'lid', timeS: 600, doneAtS: 700, massG: 4, lengthMm: 1300, materialCost: 0.1 },
    { name: 'post', timeS: 1200, doneAtS: 1900, massG: 6, lengthMm: 2000, materialCost: 0.15 },
  ],
  timeS: 1900,
  sharedS: 100,
  startUpS: 150,
  massG: 10,
  lengthMm: 3300,
  cost: 0.4,
  heightMm: 30,
  turns: [0, 1],
  problems: [],
}
const doubtful = (time: number): Doubtful => ({
  setup,
  slopes: { 'print.pace': { time }, 'print.flow': { filament: 1 }, 'print.acceleration': { time: -time / 2 } },
})
const item = (over: object = {}): Item =>
  ({
    candidateOf: { name: 'everyday', printer: 'lugger', nozzle: 'bore-0.4', material: 'pla', values: {}, overrides: [], ...over },
    column: { name: 'lid', request: { setup } },
  }) as unknown as Item

describe('a plate that goes into the queue', () => {
  it('is one print that the queue takes, with ranges no narrower than those of its most doubtful part', () => {
    const frozen = frozenPlate({ name: 'Sunday', order: 'together', items: [] }, [item(), item({ name: 'thin' })], figures, [
      doubtful(0.6),
      doubtful(1),
    ])
    expect(frozenPrintSchema.parse(frozen)).toMatchObject({ name: 'Sunday', profile: 'everyday, thin', printer: 'lugger' })
    expect(frozen.part).toBeUndefined()
    const { time, mass } = wholeRanges(frozen.foretold)
    expect(time[0]).toBeLessThan(2050)
    expect(time[1]).toBeGreaterThan(2050)
    expect(mass[0]).toBeLessThan(10)
    const width = (of: readonly Doubtful[]): number => foretoldPlate(figures, of).spreads.time
    expect(width([doubtful(0.6), doubtful(1)])).toBe(width([doubtful(1), doubtful(1)]))
    expect(width([doubtful(0.6), doubtful(0.6)])).toBeLessThan(width([doubtful(1), doubtful(1)]))
    // Its parts weigh by their time.
    expect(foretoldPlate(figures, [doubtful(0), doubtful(1)]).slope).toBeCloseTo((1200 / 1800) * 0.5, 9)
  })

  it('is named by its profiles, as far as there is room', () => {
    const long = Array.from({ length: 30 }, (_, i) => item({ name: `profile number ${i}` }))
    const { profile } = frozenPlate({ name: 'Sunday', order: 'together', items: [] }, long, figures, [doubtful(1), doubtful(1)])
    expect(profile).toHaveLength(120)
    expect(profile.endsWith('…')).toBe(true)
  })
})

describe('columns on a plate', () => {
  it('share printer, nozzle and reel, or say in what they differ', () => {
    const lineup = (over: object) => ({ candidates: [{ ...item(over).candidateOf, id: 'a' }] }) as unknown as Parameters<typeof whyNot>[0]
    const why = (over: object) => whyNot(lineup(over), 'a', item())
    expect(why({})).toBeUndefined()
    expect(why({ printer: 'dory' })).toBe('another printer')
    expect(why({ nozzle: 'bore-0.6' })).toBe('another nozzle')
    expect(why({ material: 'petg' })).toBe('another material')
    expect(why({ spool: 'storm-black' })).toBe('another reel')
    expect(whyNot(lineup({ printer: 'dory' }), 'a', undefined)).toBeUndefined()
    expect(sharesSetup(item(), item({ values: { wallCount: 9 } }))).toBe(true)
  })

  it('turn within half a turn to either side', () => {
    expect([turnedBy(0, 15), turnedBy(175, 15), turnedBy(-170, -15), turnedBy(180, -360)]).toEqual([15, -170, 175, 180])
  })
})
