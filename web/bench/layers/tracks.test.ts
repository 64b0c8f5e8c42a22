import { describe, expect, it } from 'vitest'
import { jumpsOf, nextAbove, scaleEnd, tracks } from './tracks'

const track = (id: string) => tracks.find((one) => one.id === id)!
const layered = (checks: object[] = []) =>
  ({
    tracks: {
      z: Float64Array.of(0.2, 0.4, 0.6),
      timeS: Float64Array.of(5, 9, 7),
      melt: Float64Array.of(0.1, 0.2, 0.4),
      cooling: Float64Array.of(Number.NaN, 1.5, 2),
      bond: Float64Array.of(1, 0.7, 0.6),
    },
    checks,
  }) as unknown as Parameters<typeof jumpsOf>[0][number]

describe('the strip log', () => {
  it('ends its scales at round numbers that hold all that is compared', () => {
    expect(scaleEnd(track('time'), [Float64Array.of(3, 42), Float64Array.of(61)])).toBe(65)
    expect(scaleEnd(track('melt'), [Float64Array.of(20)])).toBe(110)
    expect(scaleEnd(track('cooling'), [Float64Array.of(250, Infinity)])).toBe(4)
    expect(scaleEnd(track('air'), [new Float64Array(3)])).toBe(1)
  })

  it('goes to the worst layers, by height, and to risks that have one', () => {
    const jumps = jumpsOf([
      layered([
        { id: 'a', evidence: 'A', atZMm: 0.4 },
        { id: 'b', evidence: 'B' },
      ]),
      layered([{ id: 'c', evidence: 'C', atZMm: 0.2 }]),
    ])
    expect(Object.fromEntries(jumps.map(({ id, z }) => [id, z]))).toEqual({
      slowest: 0.4,
      cooling: 0.4,
      melt: 0.6,
      // The first layer lies on the bed: its bond is none.
      bond: 0.6,
      'check 0 a': 0.4,
      'check 1 c': 0.2,
    })
    const marks = jumps.filter(({ id }) => id.startsWith('check '))
    expect(nextAbove(marks, 0.2)?.z).toBe(0.4)
    expect(nextAbove(marks, 0.4)?.z).toBe(0.2)
    expect(nextAbove([], 1)).toBeUndefined()
  })
})
