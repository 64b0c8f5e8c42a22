import { describe, expect, it } from 'vitest'
import { planMotion } from '../motion/planMotion'
import { layOut } from '../testing/layOut'
import { setupOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { copyPaths, copyPlaces } from './copyPaths'
import { laidVolume } from './laidVolume'

const size = [8, 8, 10] as const

describe('copies', () => {
  it('stand apart by their gap, as square as they can', () => {
    const places = copyPlaces(size, { copies: 7, copyGap: 5, copyOrder: 'together', liftHeight: 0 })
    expect(new Set(places.map(String)).size).toBe(7)
    for (const [i, a] of places.entries())
      for (const b of places.slice(0, i)) expect(Math.max(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]))).toBeGreaterThanOrEqual(13)
    expect(Math.max(...places.flat()) - Math.min(...places.flat())).toBeLessThanOrEqual(2 * 13)
  })

  it('lay as many times the plastic, printed together or one at a time', async () => {
    const { path, settings } = await layOut(blockMesh(...size), {})
    for (const copyOrder of ['together', 'oneAtATime'] as const) {
      const copied = copyPaths(path, size, { ...settings, copies: 4, copyOrder })
      expect(laidVolume(copied).total / laidVolume(path).total).toBeCloseTo(4, 9)
      expect(copied.layerStart.length - 1).toBe((path.layerStart.length - 1) * (copyOrder === 'together' ? 1 : 4))
    }
  })

  it('together give each other time to cool: layers are slowed less (CP-C1, CP-K6, common practice)', async () => {
    const { path, settings } = await layOut(blockMesh(...size), { minLayerTime: 12 })
    const scale = (copies: number, copyOrder: 'together' | 'oneAtATime') => {
      const motion = planMotion(copyPaths(path, size, { ...settings, copies, copyOrder }), () => settings, setupOf().printer)
      return motion.layerScale.reduce((sum, s) => sum + s, 0) / motion.layerScale.length
    }
    expect(scale(4, 'together')).toBeGreaterThan(1.5 * scale(4, 'oneAtATime'))
  })

  it('one at a time rise above what is finished before they go on', async () => {
    const { path, settings } = await layOut(blockMesh(...size), {})
    const three = { ...settings, copies: 3, copyOrder: 'oneAtATime' as const }
    const copied = copyPaths(path, size, three)
    const places = copyPlaces(size, three)
    const copyAt = (m: number): number => {
      const far = places.map(([x, y]) => Math.hypot(copied.x[m]! - x, copied.y[m]! - y))
      return far.indexOf(Math.min(...far))
    }
    let last = 0
    for (let m = 0; m < copied.feature.length; m++) {
      // The nozzle comes from the corner of the bed to the first of them.
      if (copyAt(m) === copyAt(m + 1) || copied.z[m] === 0) continue
      expect(copied.z[m]).toBeGreaterThan(10)
      last++
    }
    expect(last).toBe(2)
  })
})
