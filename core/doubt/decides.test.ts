import { describe, expect, it } from 'vitest'
import type { ConstantId } from '../constants/constants'
import { setupOf } from '../testing/setups'
import { decidedBy, type Weighed } from './decides'
import { worthTuning } from './worthTuning'

const setup = setupOf()
const column = (name: string, time: number, slopes: Partial<Record<ConstantId, number>>, limit?: number): Weighed => ({
  name,
  values: { time },
  doubtful: { setup, slopes: Object.fromEntries(Object.entries(slopes).map(([id, slope]) => [id, { time: slope }])) as never },
  ...(limit === undefined ? {} : { limits: { time: limit } }),
})
const ladder = new Map<ConstantId, number>([['melt.flowLong', 0.02]])

describe('what a measurement decides', () => {
  it('two columns whose order hangs on the flow', () => {
    const found = decidedBy([column('everyday', 3600, { 'melt.flowLong': 0 }), column('quick', 3400, { 'melt.flowLong': -0.5 })], ladder)
    expect(found).toEqual([{ figure: 'time', between: ['everyday', 'quick'] }])
  })

  it('nothing where both hang on it alike: it cancels out', () => {
    expect(decidedBy([column('one', 3600, { 'melt.flowLong': -0.5 }), column('other', 3400, { 'melt.flowLong': -0.5 })], ladder)).toEqual(
      [],
    )
  })

  it('nothing where they are far apart already, or another constant hides it', () => {
    expect(decidedBy([column('one', 3600, {}), column('other', 1200, { 'melt.flowLong': -0.5 })], ladder)).toEqual([])
    expect(
      decidedBy([column('one', 3600, {}), column('other', 3400, { 'melt.flowLong': -0.5, 'print.acceleration': -0.6 })], ladder),
    ).toEqual([])
  })

  it('a limit that may be kept or missed', () => {
    expect(decidedBy([column('one', 3500, { 'melt.flowLong': -0.4 }, 3600)], ladder)).toEqual([{ figure: 'time', limitOf: 'one' }])
  })
})

describe('whether tuning is worth it', () => {
  it('not an hour for a print of minutes, but for one of twenty hours (CP-T10, common practice)', () => {
    const hour = { trialS: 1800, copies: 1, ownMin: 30, minuteWorth: 1 }
    expect(worthTuning({ ...hour, printS: 20 * 60 }).worth).toBe(false)
    expect(worthTuning({ ...hour, printS: 20 * 3600 }).worth).toBe(true)
  })

  it('more so the more copies there are', () => {
    const small = { printS: 1800, trialS: 1800, ownMin: 15, minuteWorth: 1 }
    expect(worthTuning({ ...small, copies: 1 }).worth).toBe(false)
    expect(worthTuning({ ...small, copies: 30 }).worth).toBe(true)
  })
})
