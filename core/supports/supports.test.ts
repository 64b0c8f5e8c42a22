import { beforeAll, describe, expect, it } from 'vitest'
import { groupArea } from '../geometry/contours'
import { NearIndex } from '../geometry/nearIndex'
import type { PolygonKernel } from '../geometry/polygon'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { type LaidOut, layOut } from '../testing/layOut'
import { mushroom } from '../testing/paths'
import { blockMesh, joined, moved } from '../testing/solids'
import { laidVolume } from '../toolpath/laidVolume'
import { code } from '../toolpath/toolpath'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})

describe('supports', () => {
  const clearOfPart = ({ path, layers, settings }: LaidOut, gap: number) => {
    for (let layer = 0; layer < layers.top.length; layer++) {
      const near = new NearIndex(layers.outlines, layer, 3)
      for (let m = path.layerStart[layer]!; m < path.layerStart[layer + 1]!; m++) {
        if (path.feature[m] !== code.support) continue
        const distance = near.signedDistance(path.x[m + 1]!, path.y[m + 1]!)
        if (Number.isNaN(distance)) expect(near.holds(path.x[m + 1]!, path.y[m + 1]!)).toBe(false)
        else expect(distance).toBeGreaterThan(gap - settings.lineWidth / 2 - 0.05)
      }
    }
  }

  it('are built from the angle limit on, plain or branching, and only when asked for', async () => {
    expect(laidVolume((await layOut(mushroom(), {})).path).support).toBe(0)
    for (const supports of ['plain', 'branching'] as const) {
      expect(laidVolume((await layOut(mushroom(), { supports })).path).support).toBeGreaterThan(10)
      expect(laidVolume((await layOut(blockMesh(20, 20, 10), { supports })).path).support).toBe(0)
    }
  })

  it('stay clear of the part by their gap', async () => {
    clearOfPart(await layOut(mushroom(), { supports: 'plain' }), 0.8)
    clearOfPart(await layOut(mushroom(), { supports: 'branching' }), 0.4)
  })

  it('weigh more when denser, and more plastic still with dense top layers (CP-P2, common practice)', async () => {
    const grams = async (values: SettingValues) => laidVolume((await layOut(mushroom(), { supports: 'plain', ...values })).path).support
    expect(await grams({ supportDensity: 20 })).toBeGreaterThan(1.8 * (await grams({ supportDensity: 8 })))
    expect(await grams({ supportTopLayers: 3 })).toBeGreaterThan(1.2 * (await grams({})))
    // Few lines cross so small a region, so patterns of one density differ by their rims.
    expect(Math.abs((await grams({ supportPattern: 'grid' })) / (await grams({ supportPattern: 'lines' })) - 1)).toBeLessThan(0.25)
  })

  it('as branches are filled inside wide trunks by the pattern and density that is asked for', async () => {
    const grams = async (values: SettingValues) =>
      laidVolume((await layOut(mushroom(), { supports: 'branching', trunkDiameter: 15, ...values })).path).support
    const sparse = await grams({ supportDensity: 5 })
    expect(await grams({ supportDensity: 30 })).toBeGreaterThan(1.3 * sparse)
    expect(await grams({ supportDensity: 5, supportPattern: 'grid' })).not.toBeCloseTo(sparse, 3)
  })

  it('as branches lean no more than allowed, and touch less than plain ones (CP-P4, common practice)', async () => {
    const { regions } = await layOut(mushroom(), { supports: 'branching', branchLean: 45 })
    const { regions: plain } = await layOut(mushroom(), { supports: 'plain' })
    expect(groupArea(regions.support.body, 55)).toBeLessThan(0.5 * groupArea(plain.support.body, 55))
    for (let layer = 5; layer < 55; layer++) {
      // What a branch covers lies within a layer's height sideways of what it covered below, at 45°.
      const outside = kernel.run((ops) =>
        ops.area(ops.subtract(ops.read(regions.support.body, layer), ops.swell(ops.read(regions.support.body, layer - 1), 0.2 + 0.06))),
      )
      // Sections are twelve-sided, so rims differ from circles by a hundredth.
      expect(outside).toBeLessThan(0.01 * groupArea(regions.support.body, layer) + 0.3)
    }
  })

  it('stand on the bed alone when told to', async () => {
    const shelf = joined(blockMesh(30, 20, 2), moved(blockMesh(6, 20, 12), -12, 0, 0), moved(blockMesh(30, 20, 2), 0, 0, 12))
    const grams = async (supportFrom: 'bed' | 'everywhere') =>
      laidVolume((await layOut(shelf, { supports: 'plain', supportFrom })).path).support
    expect(await grams('everywhere')).toBeGreaterThan(20)
    expect(await grams('bed')).toBe(0)
  })
})
