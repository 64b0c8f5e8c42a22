import { describe, expect, it } from 'vitest'
import { StageCache } from './stageCache'

/** Counts how often each key is computed. */
function counted(cache: StageCache, make: (key: string) => unknown = (key) => key) {
  const times = new Map<string, number>()
  const get = (key: string, stage = 'stage') =>
    cache.get(stage, key, () => {
      times.set(key, (times.get(key) ?? 0) + 1)
      return make(key)
    })
  return { get, times }
}

describe('a memory of stages', () => {
  it('computes what it does not know, once', () => {
    const cache = new StageCache(2)
    const { get, times } = counted(cache)
    expect([get('a'), get('a'), get('b')]).toEqual(['a', 'a', 'b'])
    expect([...times]).toEqual([
      ['a', 1],
      ['b', 1],
    ])
    expect(cache.counts).toEqual({ reused: 1, computed: 2 })
  })

  it('forgets what was not used for longest, in each stage by itself', () => {
    const { get, times } = counted(new StageCache(2))
    for (const key of ['a', 'b', 'a', 'c', 'a', 'b']) get(key)
    expect(times.get('a')).toBe(1)
    expect(times.get('b')).toBe(2)
    get('a', 'other')
    expect(times.get('a')).toBe(2)
  })

  it('holds no more bytes than it may, and always the newest', () => {
    const { get, times } = counted(new StageCache(100, 10_000), () => ({ of: { x: new Float64Array(500) } }))
    // Two of 4,000 bytes fit, three do not.
    for (const key of ['a', 'b', 'a', 'c', 'a']) get(key)
    expect(times.get('a')).toBe(1)
    get('b')
    expect(times.get('b')).toBe(2)
    const large = counted(new StageCache(100, 10), () => new Uint8Array(1000))
    large.get('a')
    large.get('a')
    expect(large.times.get('a')).toBe(1)
  })

  it('leaves nothing behind of what failed', () => {
    const cache = new StageCache()
    expect(() =>
      cache.get('stage', 'a', () => {
        throw new Error('no')
      }),
    ).toThrow('no')
    expect(cache.get('stage', 'a', () => 1)).toBe(1)
  })
})
