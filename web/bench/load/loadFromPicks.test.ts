import { noPurpose } from '@sable/core/physics/strength/purpose'
import { describe, expect, it } from 'vitest'
import { loadFromPicks } from './loadFromPicks'

/** Corners of a bar of 100 × 20 × 10 mm that begins at the origin. */
const bar = [0, 0, 0, 100, 0, 0, 100, 20, 0, 0, 20, 0, 0, 0, 10, 100, 0, 10, 100, 20, 10, 0, 20, 10]
const load = { ...noPurpose.load, kind: 'bend' as const }

describe('a load picked on the part', () => {
  it('acts along the axis that the two touches nearly follow, and each grip reaches to its touch', () => {
    expect(loadFromPicks(load, [8, 10, 10], [93, 12, 6], bar)).toEqual({ ...load, kind: 'bend', axis: 'x', heldTo: 8, loadedFrom: 93 })
  })

  it('held at the high end is bent the other way round; pulled it is the same', () => {
    expect(loadFromPicks(load, [93, 10, 10], [8, 12, 6], bar)).toMatchObject({ kind: 'bendHigh', axis: 'x', heldTo: 8, loadedFrom: 93 })
    expect(loadFromPicks({ ...load, kind: 'pull' }, [93, 10, 10], [8, 12, 6], bar)).toMatchObject({ kind: 'pull', axis: 'x', heldTo: 8 })
  })

  it('acts along a direction of its own where no axis is near', () => {
    const free = loadFromPicks(load, [0, 0, 0], [20, 20, 0], bar)!
    expect(free).toMatchObject({ kind: 'bend', axis: 'free', azimuthDeg: 45, elevationDeg: 0 })
    // The bar reaches (100 + 20)/√2 along it, and the touch 40/√2: grips never meet.
    expect(free).toMatchObject({ heldTo: 0, loadedFrom: 55 })
  })

  it('is none when both touches are one', () => {
    expect(loadFromPicks(load, [1, 2, 3], [1, 2, 3], bar)).toBeUndefined()
  })
})
