import { describe, expect, it } from 'vitest'
import type { Setup } from '../setup/resolve'
import { setupOf } from '../testing/setups'
import { planTrial, type TrialChoice } from './plan'
import type { TrialAnswers } from './read'
import type { TrialKindId } from './spec/trial'
import { type ReadTrial, retestedAfterNozzle, tallyOf } from './tally'

const spool: NonNullable<Setup['spool']> = {
  key: 'reel',
  name: 'Reel',
  material: 'pla',
  netG: 1000,
  weighings: [],
  dried: ['2026-11-01'],
  defaults: {},
}
const setup: Setup = { ...setupOf(), spool }
let count = 0
const read = (
  kind: TrialKindId,
  day: string,
  answers: Partial<TrialAnswers>,
  more: Partial<ReadTrial> & { choice?: TrialChoice } = {},
): ReadTrial => ({
  id: String(count++),
  spec: planTrial(kind, setup, more.choice).spec,
  bands: [],
  whole: {},
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  spool: 'reel',
  readAt: `${day}T12:00:00.000Z`,
  leftOut: false,
  ...answers,
  ...more,
})
const tower = (first: number, last: number) =>
  ['190', '195', '200', '205', '210', '215', '220'].map((t) => ({
    seen: Number(t) < first ? 'gaps' : Number(t) > last ? 'strings' : 'clean',
  }))
const dry = read('dryness', '2026-11-02', { whole: { sound: 'no', strand: 'smooth' } })
const stateOf = (all: readonly ReadTrial[], id: TrialKindId, own: Setup = setup) =>
  tallyOf(all, own).rungs.find(({ kind }) => kind.id === id)!

describe('a spool’s ladder', () => {
  it('begins with dryness, then heat', () => {
    expect(tallyOf([], setup).next?.kind).toBe('dryness')
    expect(tallyOf([dry], setup).next?.kind).toBe('temperature')
  })

  it('asks for the narrower tower that a reading asks for, then goes on', () => {
    const coarse = read('temperature', '2026-11-03', { bands: tower(205, 210) })
    expect(tallyOf([dry, coarse], setup).next).toMatchObject({ kind: 'temperature', range: { step: 3 } })
    const fine = read(
      'temperature',
      '2026-11-04',
      { bands: ['gaps', 'clean', 'clean', 'clean', 'strings'].map((seen) => ({ seen })) },
      { choice: { range: { from: 204, to: 212, step: 2 } } },
    )
    expect(tallyOf([dry, coarse, fine], setup).next?.kind).toBe('bed')
  })

  it('knows a kind that was read, by its last reading', () => {
    const rung = stateOf([read('temperature', '2026-11-03', { bands: tower(205, 210) })], 'temperature')
    expect(rung.state).toBe('known')
    expect(rung.readings[0]!.outcome.short).toMatch(/^20[78] °C$/)
  })

  it('takes the number of the record where nothing was read, and does not ask for it again', () => {
    const own = { ...setup, spool: { ...spool, defaults: { nozzleTemperature: 207 } } }
    expect(stateOf([], 'temperature', own)).toMatchObject({ state: 'record', record: '207 °C' })
    expect(tallyOf([dry], own).next?.kind).toBe('bed')
  })

  it('stands with answers that nothing asks for any more', () => {
    const kept = read(
      'dimensions',
      '2026-11-03',
      { whole: { wall: 0.42, weight: 20 } },
      { foretold: { timeS: 9, massG: 19, bond: 1, inForce: {}, bands: [] } },
    )
    expect(stateOf([kept], 'dimensions').readings[0]!.outcome.found).toContain('weighs 20 g')
  })

  it('is old after another nozzle, for what changes with it, and after drying', () => {
    const other = read('temperature', '2026-11-03', { bands: tower(205, 210) }, { nozzle: 'bore-0.6' })
    expect(stateOf([other], 'temperature')).toMatchObject({ state: 'old', why: 'read with another nozzle' })
    expect(stateOf([read('temperature', '2026-10-20', { bands: tower(205, 210) })], 'temperature').why).toBe('dried since, on 2026-11-01')
    expect(stateOf([read('bridge', '2026-11-03', { bands: [{ under: 'straight' }] }, { nozzle: 'bore-0.6' })], 'bridge').state).toBe(
      'known',
    )
    expect(retestedAfterNozzle).toEqual(['temperature', 'bed', 'flowLadder', 'retraction'])
  })

  it('tells both where two readings contradict each other, until one is left out', () => {
    const [first, second] = [
      read('temperature', '2026-11-03', { bands: tower(200, 205) }),
      read('temperature', '2026-11-05', { bands: tower(215, 220) }),
    ]
    const rung = stateOf([first, second], 'temperature')
    expect(rung.state).toBe('contradicts')
    expect(rung.why).toMatch(/^2[12]\d °C on 2026-11-05, 20\d °C on 2026-11-03/)
    expect(stateOf([{ ...first, leftOut: true }, second], 'temperature').state).toBe('known')
  })

  it('counts a printer’s frame for all its spools, and a spool’s numbers for that spool alone', () => {
    const frame = read('ringing', '2026-11-03', { whole: { speed: 100, wavesX: 20, lengthX: 42 } }, { spool: 'another' })
    expect(stateOf([frame], 'ringing').state).toBe('known')
    expect(stateOf([read('temperature', '2026-11-03', { bands: tower(205, 210) }, { spool: 'another' })], 'temperature').state).toBe(
      'unknown',
    )
  })

  it('of a wet spool comes to dryness first, whatever is known', () => {
    const wet = {
      ...setup,
      stock: { remaining: { grams: 500, doubtG: 5, metres: 160, from: 'weighed' as const }, days: 200, wet: true, others: [] },
    }
    expect(tallyOf([read('temperature', '2026-11-03', { bands: tower(205, 210) })], wet).next?.why).toContain('Probably wet')
  })
})
