import { faultIds } from '@sable/core/faults/faults'
import { describe, expect, it } from 'vitest'
import { drawingOf } from './drawings'

describe('drawings of faults', () => {
  it.each(faultIds)('%s has one of its own, the same each time, within its frame', (id) => {
    const strokes = drawingOf(id)
    expect(strokes.length).toBeGreaterThan(1)
    expect(drawingOf(id)).toEqual(strokes)
    for (const { d } of strokes) expect(d).not.toMatch(/NaN|undefined/)
    // Absolute places: a drawing that left its frame would be cut.
    for (const [, x, y] of strokes.flatMap(({ d }) => [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)])) {
      expect(Number(x)).toBeGreaterThanOrEqual(0)
      expect(Number(x)).toBeLessThanOrEqual(72)
      expect(Number(y)).toBeGreaterThanOrEqual(0)
      expect(Number(y)).toBeLessThanOrEqual(56)
    }
  })

  it('tell faults apart', () => {
    const all = faultIds.map((id) =>
      drawingOf(id)
        .map(({ d }) => d)
        .join(' '),
    )
    expect(new Set(all).size).toBe(faultIds.length)
  })
})
