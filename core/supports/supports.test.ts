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

describe('supports of a place', () => {
  /** Two tables side by side, their lids 30 mm apart. */
  const tables = () =>
    joined(
      ...[-20, 20].flatMap((x) => [moved(blockMesh(4, 4, 12), x, 0, 0), moved(blockMesh(24, 12, 2), x, 0, 12)]),
      // One body, so that it lies as it was made.
      moved(blockMesh(44, 2, 2), 0, 0, 0),
    )
  const left = { minX: -40, maxX: 0, minY: -40, maxY: 40 }
  /** Line of supports that is laid on either side, mm. */
  const sides = ({ path }: LaidOut): readonly [left: number, right: number] => {
    const mm = [0, 0] as [number, number]
    for (let m = 0; m < path.feature.length; m++)
      if (path.feature[m] === code.support && path.area[m]! > 0)
        mm[path.x[m]! < 0 ? 0 : 1] += Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
    return mm
  }

  it.each(['plain', 'branching'] as const)('%s stand only where one says so, and everywhere but where one says not', async (supports) => {
    const both = sides(await layOut(tables(), { supports }))
    expect(both[0] / both[1]).toBeCloseTo(1, 0)
    const onlyLeft = sides(await layOut(tables(), {}, [{ name: 'here', fromZ: 0, box: left, values: { supports } }]))
    expect(onlyLeft[0]).toBeGreaterThan(0.7 * both[0])
    expect(onlyLeft[1]).toBe(0)
    const onlyRight = sides(await layOut(tables(), { supports }, [{ name: 'not here', fromZ: 0, box: left, values: { supports: 'off' } }]))
    expect(onlyRight[0]).toBe(0)
    expect(onlyRight[1]).toBeGreaterThan(0.7 * both[1])
  })

  it('have its density and angle, and leave walls and infill as they are', async () => {
    const plain = await layOut(tables(), { supports: 'plain' })
    const denser = await layOut(tables(), { supports: 'plain' }, [{ name: 'dense', fromZ: 0, box: left, values: { supportDensity: 30 } }])
    const [before, after] = [sides(plain), sides(denser)]
    expect(after[0]).toBeGreaterThan(1.8 * before[0])
    expect(after[1] / before[1]).toBeCloseTo(1, 1)
    // A level lid hangs more than any angle allows but the flattest.
    const bold = await layOut(tables(), { supports: 'plain' }, [{ name: 'bold', fromZ: 0, box: left, values: { supportAngle: 89 } }])
    expect(sides(bold)[0]).toBeLessThan(before[0])
    const length = ({ path }: LaidOut, feature: number): number => {
      let mm = 0
      for (let m = 0; m < path.feature.length; m++)
        if (path.feature[m] === feature) mm += Math.hypot(path.x[m + 1]! - path.x[m]!, path.y[m + 1]! - path.y[m]!)
      return mm
    }
    for (const feature of [code.outerWall, code.innerWall, code.infill])
      expect(length(bold, feature)).toBeCloseTo(length(plain, feature), 6)
  })

  it('of layers hold below them and no higher', async () => {
    const stacked = joined(blockMesh(4, 4, 30), moved(blockMesh(24, 24, 2), 0, 0, 10), moved(blockMesh(24, 24, 2), 0, 0, 24))
    const laid = await layOut(stacked, { supports: 'plain' }, [{ name: 'above', fromZ: 16, values: { supports: 'off' } }])
    let highest = 0
    for (let m = 0; m < laid.path.feature.length; m++)
      if (laid.path.feature[m] === code.support) highest = Math.max(highest, laid.path.z[m]!)
    expect(highest).toBeGreaterThan(8)
    expect(highest).toBeLessThan(11)
  })
})
