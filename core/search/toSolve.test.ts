import { describe, expect, it } from 'vitest'
import { noPurpose } from '../physics/strength/purpose'
import { seeded } from '../units/seeded'
import type { Figures } from './figures'
import { MOST_SOLVED, toSolve } from './toSolve'

const of = (time: number, strength: number, stops = 0): Figures => ({ time, strength, stops })
const [time, strength] = [
  { figure: 'time', better: 'less' },
  { figure: 'strength', better: 'more' },
] as const
const asked = { objectives: [time, strength], limits: [], purpose: noPurpose }

describe('what of a search is solved', () => {
  const all = [of(100, 50), undefined, of(200, 90), of(150, 40), of(250, 95), of(240, 99, 1)]

  it('is its front, without what cannot be printed or would be stopped', () => {
    expect(toSolve(all, asked)).toEqual([0, 2, 4])
  })

  it('goes by strength also where only a load is wanted, and past that load, for sections may be wrong about it', () => {
    const limited = { objectives: [time], limits: [{ figure: 'strength', least: 45 } as const], purpose: noPurpose }
    expect(toSolve(all, limited)).toEqual([0, 2, 4])
    // Another limit holds.
    expect(toSolve(all, { ...limited, limits: [...limited.limits, { figure: 'time', most: 220 } as const] })).toEqual([0, 2])
  })

  it('is nothing where strength matters nothing, or its load is not solved', () => {
    expect(toSolve(all, { ...asked, objectives: [time] })).toEqual([])
    expect(toSolve(all, { ...asked, purpose: { ...noPurpose, kind: 'show' } })).toEqual([])
    expect(toSolve(all, { ...asked, purpose: { ...noPurpose, load: { ...noPurpose.load, axis: 'free' } } })).toEqual([])
  })

  it('of a long front is so many, its ends and what stands apart among them, whatever the order', () => {
    const random = seeded(3)
    // A front of sixty, of which one stands alone in a gap.
    const front = [...Array(60).keys()].filter((i) => i < 20 || i > 40 || i === 30).map((i) => of(100 + i, 10 + i))
    const chosen = toSolve(front, asked).map((i) => front[i]!.time)
    expect(chosen).toHaveLength(MOST_SOLVED)
    expect(chosen).toEqual(expect.arrayContaining([100, 130, 159]))
    const shuffled = [...front].sort(() => random() - 0.5)
    const again = toSolve(shuffled, asked).map((i) => shuffled[i]!.time)
    expect(again).toEqual(expect.arrayContaining([100, 130, 159]))
  })
})
