import { describe, expect, it } from 'vitest'
import { drawnTower } from './tower'

describe('a drawn tower', () => {
  it('is the same for the same seed', () => {
    expect(drawnTower(6)).toEqual(drawnTower(6))
    expect(drawnTower(6)).not.toEqual(drawnTower(8))
  })

  it('of temperature has its gaps below what is clean and its strings above, over many of them', () => {
    let wrong = 0
    let all = 0
    for (let seed = 0; seed < 400; seed += 2) {
      const { bands, truth } = drawnTower(seed)
      for (const { label, strings, gaps } of bands) {
        all += strings.length + gaps.length
        wrong += Number(label) < truth ? strings.length : gaps.length
      }
    }
    expect(all).toBeGreaterThan(1000)
    expect(wrong / all).toBeLessThan(0.05)
  })

  it('of flow is whole up to where it fails, and mostly not beyond', () => {
    for (let seed = 1; seed < 100; seed += 2) {
      const { bands, truth } = drawnTower(seed)
      expect(bands.filter(({ label, gaps }) => Number(label) <= truth && gaps.length > 0)).toEqual([])
      const beyond = bands.filter(({ label }) => Number(label) > 1.15 * truth)
      expect(beyond.filter(({ gaps }) => gaps.length === 0).length).toBeLessThanOrEqual(Math.ceil(beyond.length / 5))
    }
  })
})
