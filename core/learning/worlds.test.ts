import { describe, expect, it } from 'vitest'
import { learnIn, quantile } from '../testing/worlds'

/* A thousand worlds are learned in by bench/; here are enough of them to see that it is no accident. */

describe('in workshops whose truth nobody is told', () => {
  const worlds = Array.from({ length: 40 }, (_, i) => learnIn(i + 1))
  const off = (of: 'time' | 'flow' | 'strength', share: number): number =>
    quantile(
      worlds.map((world) => world[of]),
      share,
    )

  it('five prints by the clock tell the time of the next within 1.5 %, nine in ten within 4 %', () => {
    expect(off('time', 0.5)).toBeLessThan(0.015)
    expect(off('time', 0.9)).toBeLessThan(0.04)
  })

  it('two ladders tell the failing flow within 5 %, nine in ten within 12 %', () => {
    expect(off('flow', 0.5)).toBeLessThan(0.05)
    expect(off('flow', 0.9)).toBeLessThan(0.12)
  })

  it('three bars tell the strength within 6 %, nine in ten within 15 %', () => {
    expect(off('strength', 0.5)).toBeLessThan(0.06)
    expect(off('strength', 0.9)).toBeLessThan(0.15)
  })

  it('ranges that were told beforehand hold about four of five', () => {
    const all = worlds.flatMap(({ held }) => held)
    const share = all.filter(Boolean).length / all.length
    expect(share).toBeGreaterThan(0.75)
    expect(share).toBeLessThan(0.9)
  })
})
