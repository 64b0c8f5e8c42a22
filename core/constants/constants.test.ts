import { describe, expect, it } from 'vitest'
import { constantIds, constantOf, constantsFrom, medians, moved, valueIn, withValue } from './constants'

describe('the table of constants', () => {
  it('says of each what it is, whose, how far it may be off, and who says so', () => {
    for (const id of constantIds) {
      const { label, median, spread, source, scale, moves, measure } = constantOf(id)
      expect(label.length).toBeGreaterThan(5)
      expect(source).toMatch(/\.$/)
      expect(spread).toBeGreaterThan(0)
      expect(moves.length).toBeGreaterThan(0)
      if (scale === 'log') expect(median).toBeGreaterThan(0)
      if (measure) expect(measure.leaves).toBeLessThanOrEqual(spread)
    }
    expect(new Set(constantIds.map((id) => constantOf(id).label)).size).toBe(constantIds.length)
  })

  it('gives values by id, and changes one without the others', () => {
    expect(valueIn(medians, 'strings.ooze')).toBe(1)
    const changed = withValue(medians, 'melt.sag', 12)
    expect(valueIn(changed, 'melt.sag')).toBe(12)
    expect(withValue(changed, 'melt.sag', valueIn(medians, 'melt.sag'))).toEqual(medians)
    expect(constantsFrom((id) => valueIn(medians, id))).toEqual(medians)
  })

  it('moves a constant on its own scale', () => {
    expect(moved('strings.ooze', 2, 1)).toBeCloseTo(2 * Math.exp(0.7), 12)
    expect(moved('cooling.room', 22, -2)).toBe(16)
  })
})
