import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { setupOf } from '../testing/setups'
import { extentOf, type Footprint, gapBetween, placedFootprint } from './footprint'
import { freeSpot } from './freeSpot'
import type { PlateOrder } from './platePart'
import { type Stood, standsWrong } from './turns'

const rectangle = (width: number, depth: number): Footprint => [
  -width / 2,
  -depth / 2,
  width / 2,
  -depth / 2,
  width / 2,
  depth / 2,
  -width / 2,
  depth / 2,
]
const room = setupOf('lugger').printer

describe('a free spot on a plate', () => {
  it('is the middle of an empty bed, also for what does not lie about its own middle', () => {
    const aside = placedFootprint(rectangle(40, 20), { x: 15, y: -5, turn: 0 })
    expect(freeSpot([], { name: 'lid', footprint: aside, heightMm: 3 }, 'together', room)).toEqual({ x: -15, y: 5 })
  })

  it('is on the bed and clear of all others, whatever is put there one after another', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 4, max: 90 }), fc.integer({ min: 4, max: 90 }), fc.integer({ min: 1, max: 120 })), {
          minLength: 1,
          maxLength: 14,
        }),
        fc.constantFrom<PlateOrder>('together', 'inTurn'),
        (sizes, order) => {
          const stood: Stood[] = []
          for (const [i, [width, depth, heightMm]] of sizes.entries()) {
            const part = { name: `part ${i}`, footprint: rectangle(width, depth), heightMm }
            try {
              const at = freeSpot(stood, part, order, room)
              stood.push({ ...part, footprint: placedFootprint(part.footprint, { ...at, turn: 0 }) })
            } catch (error) {
              expect(String(error)).toContain(`There is no room left for part ${i}`)
            }
          }
          for (const [i, a] of stood.entries())
            for (const b of stood.slice(i + 1)) expect(gapBetween(a.footprint, b.footprint)).toBeGreaterThan(3.8)
          for (const { footprint } of stood) {
            const { minX, maxX, minY, maxY } = extentOf(footprint)
            expect(Math.max(-minX, maxX)).toBeLessThanOrEqual(room.buildVolume[0] / 2 + 0.1)
            expect(Math.max(-minY, maxY)).toBeLessThanOrEqual(room.buildVolume[1] / 2 + 0.1)
          }
          // What is too near for the head was put as far as it needs when it came there; heights that come later may ask for more.
          if (order === 'together') expect(standsWrong(stood, order, room).filter(({ code }) => code === 'bodies-collide')).toEqual([])
        },
      ),
      { numRuns: 25 },
    )
  })
})
