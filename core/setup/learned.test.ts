import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { constantIds, medians } from '../constants/constants'
import type { Evidence } from '../learning/evidence'
import { setupOf } from '../testing/setups'
import { knownOf } from './knownSetup'
import { learned, type PlacedEvidence } from './learned'
import { resolveSettings, type Setup } from './resolve'

const spool = (key: string, maker = 'Ebbwick'): NonNullable<Setup['spool']> => ({
  key,
  name: key,
  material: 'pla',
  maker,
  netG: 1000,
  weighings: [],
  dried: [],
  defaults: {},
})
const base: Setup = { ...setupOf(), spool: spool('storm-black') }
const at = (evidence: readonly Evidence[], more: Partial<PlacedEvidence> = {}): PlacedEvidence => ({
  evidence,
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  spool: 'storm-black',
  maker: 'Ebbwick',
  from: 'a test',
  ...more,
})
const bars: Evidence = { on: 'constant', constant: 'strength.inLayer', values: [0.88, 0.95, 0.856], noise: 0.1, batch: 0.05 }

describe('what was read', () => {
  it('becomes the value and the doubt of its constant, and says who told', () => {
    const setup = learned(base, [at([bars])])
    // 45.36 of 50 MPa, ± 7.1 %
    expect(setup.constants!.strength.inLayer).toBeCloseTo(45.36 / 50, 3)
    expect(knownOf(setup, 'strength.inLayer')).toMatchObject({ basis: 'measured', from: 'a test' })
    expect(knownOf(setup, 'strength.inLayer').spread).toBeCloseTo(0.0713, 3)
  })

  it('a ladder sets what may be asked at every temperature', () => {
    const setup = learned(base, [at([{ on: 'ladder', temperature: 210, flow: 15 }])])
    const asked = (to: number) => resolveSettings(setup, { nozzleTemperature: to }).settings.flowLimit
    expect(asked(210)).toBeGreaterThan(0.85 * 15)
    expect(asked(210)).toBeLessThan(0.85 * 18)
    expect(asked(200)).toBeCloseTo(asked(210) * Math.exp(-0.26), 0)
  })

  it('of another printer, nozzle or spool does not tell of this one', () => {
    const ladder: Evidence = { on: 'ladder', temperature: 210, flow: 15 }
    for (const other of [{ printer: 'dory' }, { nozzle: 'bore-0.6' }, { spool: 'rope-ends', maker: 'Sallowmere' }])
      expect(learned(base, [at([ladder], other)]).material.ladder).toBeUndefined()
  })

  it('of a printer holds for all its spools', () => {
    const frame: Evidence = { on: 'constant', constant: 'finish.frameFrequency', values: [60], noise: 0.05 }
    const setup = learned(base, [at([frame], { spool: 'rope-ends', material: 'petg', maker: 'Sallowmere' })])
    expect(setup.constants!.finish.frameFrequency).toBeGreaterThan(57)
  })

  it('the third spool of a maker begins where the first two ended', () => {
    const weak: Evidence = { on: 'constant', constant: 'strength.inLayer', values: [0.7, 0.72, 0.69], noise: 0.1, batch: 0.05 }
    const siblings = [at([weak], { spool: 'one' }), at([weak], { spool: 'two' })]
    const third = learned({ ...base, spool: spool('three') }, siblings)
    expect(third.constants!.strength.inLayer).toBeLessThan(0.85)
    expect(third.constants!.strength.inLayer).toBeGreaterThan(0.7)
    expect(knownOf(third, 'strength.inLayer')).toMatchObject({ basis: 'calculated', from: 'other spools of Ebbwick' })
    expect(learned({ ...base, spool: spool('four', 'Sallowmere') }, siblings).known).toBeUndefined()
  })

  it('moves no constant that it does not tell of', () => {
    const setup = learned(base, [at([bars])])
    for (const id of constantIds) if (id !== 'strength.inLayer') expect(setup.known?.[id], id).toBeUndefined()
    expect(setup.constants!.sway).toEqual(medians.sway)
  })
})

describe('evidence as such', () => {
  const factor = fc.double({ min: 0.3, max: 3, noNaN: true })
  const one = fc.oneof(
    factor.map((value): Evidence => ({ on: 'constant', constant: 'strength.inLayer', values: [value], noise: 0.1 })),
    factor.map((value): Evidence => ({ on: 'constant', constant: 'finish.glossTurn', values: [5 * value], noise: 0.12 })),
    fc.tuple(fc.integer({ min: 190, max: 240 }), factor).map(([temperature, f]): Evidence => ({ on: 'ladder', temperature, flow: 20 * f })),
    fc
      .tuple(fc.integer({ min: 0, max: 20 }), factor)
      .map(([count, exposure]): Evidence => ({ on: 'strings', count, exposure: 5 * exposure })),
    factor.map((f): Evidence => ({ on: 'weight', predictedG: 20, weighedG: 20 * f })),
  )
  const all = fc.array(one, { minLength: 1, maxLength: 6 }).map((list) => list.map((evidence) => at([evidence])))
  const told = (setup: Setup): unknown =>
    Object.fromEntries(
      Object.entries(setup.known ?? {}).map(([id, { value, spread }]) => [id, [value.toPrecision(8), spread.toPrecision(8)]]),
    )

  it('in any order tells the same', () => {
    fc.assert(
      fc.property(all, (list) => {
        expect(told(learned(base, list.toReversed()))).toEqual(told(learned(base, list)))
      }),
    )
  })

  it('that is taken out was never there', () => {
    fc.assert(
      fc.property(all, (list) => {
        expect(told(learned(base, [...list, at([bars])].slice(0, -1)))).toEqual(told(learned(base, list)))
      }),
    )
  })

  it('never makes a constant less certain', () => {
    fc.assert(
      fc.property(all, (list) => {
        const [fewer, more] = [
          learned(base, list),
          learned(base, [...list, at([bars]), at([{ on: 'ladder', temperature: 210, flow: 21 }])]),
        ]
        for (const id of constantIds)
          if (id !== 'melt.ladder') expect(knownOf(more, id).spread).toBeLessThanOrEqual(knownOf(fewer, id).spread + 1e-9)
      }),
    )
  })
})
