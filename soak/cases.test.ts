import { openKernel } from '@sable/cli/openKernel'
import type { PolygonKernel } from '@sable/core/geometry/polygon'
import { hiddenIds } from '@sable/standins/hidden'
import { beforeAll, describe, expect, it } from 'vitest'
import { triesUntilFirst, type WorkedCase, workCase } from './workCase'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await openKernel()
})

/** Seeds are taken in their order until something is to be seen. */
function seenCase(hidden: (typeof hiddenIds)[number]): WorkedCase {
  for (let seed = 1; seed < 20; seed++) {
    const found = workCase(seed, kernel, hidden)
    if (found) return found
  }
  throw new Error(`${hidden} is never seen`)
}

describe('a simulated printer with a hidden fault', () => {
  it.each(hiddenIds)('%s: the case comes to it by what its prints do', (hidden) => {
    const { places, tries } = seenCase(hidden)
    expect(tries.length).toBeGreaterThan(0)
    expect(tries.length).toBeLessThanOrEqual(5)
    // Nobody who looks on is told: by then it stands first, or has come up to second.
    expect(places.at(-1)).toBeLessThanOrEqual(2)
  })

  it('tells after how many tries the true cause stood first for good', () => {
    expect(triesUntilFirst({ places: [1, 1] })).toBe(0)
    expect(triesUntilFirst({ places: [1, 2, 1] })).toBe(2)
    expect(triesUntilFirst({ places: [2, 1, 3] })).toBeUndefined()
  })
})
