import { demoParts } from '@sable/demo/scenario'
import { beforeAll, describe, expect, it } from 'vitest'
import { place } from '../mesh/place'
import { planMotion } from '../motion/planMotion'
import type { Settings, SettingValues } from '../profile/settings'
import { groupArea } from '../regions/contours'
import { NearIndex } from '../regions/nearIndex'
import type { PolygonKernel } from '../regions/polygon'
import { testKernel } from '../testing/kernel'
import { type LaidOut, layOut } from '../testing/layOut'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, solids } from '../testing/solids'
import { laidVolume } from './laidVolume'
import { leavesPart } from './leavesPart'
import { code, isLaid, moveCount, type Toolpath } from './toolpath'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})

const lengthOf = ({ x, y }: Toolpath, m: number): number => Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
const movesOf = (path: Toolpath, feature: number): number[] => [...path.feature.keys()].filter((m) => path.feature[m] === feature)
const total = (path: Toolpath, feature: number): number => movesOf(path, feature).reduce((sum, m) => sum + lengthOf(path, m), 0)
const timeOf = ({ path, settings }: LaidOut, setup = setupOf()): number =>
  planMotion(path, () => settings, setup.printer).layerTime.reduce((sum, time) => sum + time, 0)
const demo = (key: string) => place(demoParts.find((part) => part.key === key)!.make())

/** A plate on two feet: the span between them is open below. */
const table = () =>
  joined(moved(blockMesh(6, 12, 4), -12, 0, 0), moved(blockMesh(6, 12, 4), 12, 0, 0), moved(blockMesh(30, 12, 2), 0, 0, 4))
/** A plate on one foot in its middle: it overhangs all round. */
const mushroom = () => joined(blockMesh(8, 8, 12), moved(blockMesh(36, 36, 2), 0, 0, 12))

describe('infill', () => {
  it.each([
    'triangles',
    'hexagons',
    'cubic',
    'gyroid',
    'concentric',
  ] as const)('as %s lays the asked share of solid within 5 %', async (infillPattern) => {
    for (const infillDensity of [10, 25, 45]) {
      const { path } = await layOut(blockMesh(70, 70, 16), { infillDensity, infillPattern, wallCount: 1, topLayers: 0, bottomLayers: 0 })
      const laid = movesOf(path, code.infill).reduce((sum, m) => sum + path.area[m]! * lengthOf(path, m), 0)
      expect(laid / (69.2 * 69.2 * 16) / (infillDensity / 100), `${infillDensity} %`).toBeGreaterThan(0.95)
      expect(laid / (69.2 * 69.2 * 16) / (infillDensity / 100), `${infillDensity} %`).toBeLessThan(1.05)
    }
  })

  it('that only props tops is lightest of all, and stands right under them (CP-K3, common practice)', async () => {
    const mass = async (infillPattern: Settings['infillPattern']) =>
      total((await layOut(blockMesh(30, 30, 20), { infillPattern })).path, code.infill)
    const propping = await layOut(blockMesh(30, 30, 20), { infillPattern: 'topPropping' })
    const laid = total(propping.path, code.infill)
    for (const pattern of ['lines', 'grid', 'triangles', 'hexagons', 'cubic', 'gyroid', 'concentric'] as const)
      expect(laid).toBeLessThan(0.8 * (await mass(pattern)))
    const onLayer = (layer: number) =>
      movesOf(propping.path, code.infill)
        .filter((m) => m >= propping.path.layerStart[layer]! && m < propping.path.layerStart[layer + 1]!)
        .reduce((sum, m) => sum + lengthOf(propping.path, m), 0)
    // Full under the top, none far below it.
    const full = (27.6 ** 2 * 0.15) / 0.4
    expect(onLayer(95)).toBeGreaterThan(0.9 * full)
    expect(onLayer(10)).toBe(0)
  })

  it('is turned and shifted against the part', async () => {
    const first = async (values: SettingValues) => {
      const { path } = await layOut(blockMesh(40, 40, 1), {
        topLayers: 0,
        bottomLayers: 0,
        infillPattern: 'lines',
        infillDensity: 10,
        ...values,
      })
      const m = movesOf(path, code.infill)[0]!
      return { angle: Math.atan2(path.y[m + 1]! - path.y[m]!, path.x[m + 1]! - path.x[m]!), y: path.y[m]! }
    }
    expect(Math.abs(Math.sin((await first({ infillAngle: 0 })).angle))).toBeLessThan(1e-9)
    expect(Math.abs(Math.cos((await first({ infillAngle: 90 })).angle))).toBeLessThan(1e-9)
    const [still, shifted] = [(await first({ infillAngle: 0 })).y, (await first({ infillAngle: 0, infillShiftY: 1.5 })).y]
    expect((((shifted - still - 1.5) / 4) % 1) + 1).toBeCloseTo(1, 6)
  })

  it('of several layers is laid at once where it lies in all, in less time for the same plastic (CP-T7, common practice)', async () => {
    const each = await layOut(blockMesh(30, 30, 12), { layerHeight: 0.1, firstLayerHeight: 0.1 })
    const thick = await layOut(blockMesh(30, 30, 12), { layerHeight: 0.1, firstLayerHeight: 0.1, infillEvery: 3 })
    expect(laidVolume(thick.path).total / laidVolume(each.path).total).toBeCloseTo(1, 1)
    expect(timeOf(thick)).toBeLessThan(0.9 * timeOf(each))
    const heights = new Set(movesOf(thick.path, code.infill).map((m) => (thick.path.area[m]! / thick.path.width[m]!).toFixed(2)))
    expect(heights).toContain('0.30')
    // 0.875 of a 0.4 mm bore is 0.35 mm: four layers of 0.1 are more than it can lay at once.
    const tooThick = await layOut(blockMesh(30, 30, 12), { layerHeight: 0.1, firstLayerHeight: 0.1, infillEvery: 6 })
    for (const m of movesOf(tooThick.path, code.infill)) expect(tooThick.path.area[m]! / tooThick.path.width[m]!).toBeLessThan(0.351)
  })
})

describe('walls', () => {
  const ring = async () => {
    const { Manifold } = await solids
    return meshOf(Manifold.cylinder(2, 12, 12, 64).subtract(Manifold.cylinder(4, 6, 6, 48, true)))
  }

  it('finished hole by hole cost less travel (CP-T8, common practice)', async () => {
    const { Manifold } = await solids
    const holes = [-24, -8, 8, 24].flatMap((x) => [-8, 8].map((y) => Manifold.cylinder(6, 4, 4, 32, true).translate([x, y, 0])))
    const plate = meshOf(Manifold.cube([66, 34, 2], true).translate([0, 0, 1]).subtract(Manifold.union(holes)))
    const travel = async (finishEachLoop: 'on' | 'off') => total((await layOut(plate, { finishEachLoop, wallCount: 4 })).path, code.travel)
    expect(await travel('on')).toBeLessThan(await travel('off'))
  })

  it('go inside first or outside first', async () => {
    for (const [wallOrder, first] of [
      ['insideFirst', code.innerWall],
      ['outsideFirst', code.outerWall],
    ] as const) {
      const { path } = await layOut(await ring(), { wallOrder })
      const layer = [...path.feature.subarray(path.layerStart[3], path.layerStart[4])]
      expect(layer.find((feature) => feature === code.innerWall || feature === code.outerWall)).toBe(first)
    }
  })

  const seams = ({ path }: LaidOut): [number, number][] =>
    Array.from({ length: path.layerStart.length - 1 }, (_, layer) => {
      let m = path.layerStart[layer]!
      while (path.feature[m] !== code.outerWall) m++
      return [path.x[m]!, path.y[m]!]
    })

  it('begin where the seam is wanted', async () => {
    const { Manifold } = await solids
    const rod = meshOf(Manifold.cylinder(3, 8, 8, 64))
    for (const [x, y] of seams(await layOut(rod, { seam: 'rear' }))) expect([Math.abs(x) < 0.5, y > 7]).toEqual([true, true])
    const aligned = seams(await layOut(rod, { seam: 'aligned' }))
    for (const [x, y] of aligned) expect(Math.hypot(x - aligned[0]![0], y - aligned[0]![1])).toBeLessThan(0.1)
    const scattered = seams(await layOut(rod, { seam: 'scattered' })).map(([x, y]) => Math.atan2(y, x))
    expect(Math.max(...scattered) - Math.min(...scattered)).toBeGreaterThan(3)
    // An angle piece has one hollow corner, at the origin, a line's half inside.
    const angle = joined(moved(blockMesh(20, 10, 3), 0, -5, 0), moved(blockMesh(10, 20, 3), -5, 0, 0))
    for (const [x, y] of seams(await layOut(angle, { seam: 'hidden' }))) expect(Math.hypot(x, y)).toBeLessThan(0.5)
  })
})

describe('skins', () => {
  it('follow the outline when concentric, and fill as much', async () => {
    const { Manifold } = await solids
    const disc = meshOf(Manifold.cylinder(0.8, 12, 12, 96))
    const lines = await layOut(disc, { wallCount: 2 })
    const rings = await layOut(disc, { wallCount: 2, skinPattern: 'concentric' })
    expect(laidVolume(rings.path).total / laidVolume(lines.path).total).toBeCloseTo(1, 1)
    for (const m of movesOf(rings.path, code.skin)) {
      const [from, to] = [Math.hypot(rings.path.x[m]!, rings.path.y[m]!), Math.hypot(rings.path.x[m + 1]!, rings.path.y[m + 1]!)]
      expect(Math.abs(from - to)).toBeLessThan(0.2)
    }
  })

  it('joined back and forth travel less than separate lines, for the same plastic', async () => {
    const joinedUp = await layOut(blockMesh(20, 20, 1.6), { skinPattern: 'backAndForth' })
    const separate = await layOut(blockMesh(20, 20, 1.6), { skinPattern: 'separate' })
    expect(total(joinedUp.path, code.travel)).toBeLessThan(0.5 * total(separate.path, code.travel))
    expect(laidVolume(joinedUp.path).total / laidVolume(separate.path).total).toBeCloseTo(1, 2)
  })

  it('are ironed on tops alone, at a cost in time that does not grow with height (CP-S4, common practice)', async () => {
    const extra = async (height: number) =>
      timeOf(await layOut(blockMesh(20, 20, height), { ironing: 'on' })) -
      timeOf(await layOut(blockMesh(20, 20, height), { ironing: 'off' }))
    const { path } = await layOut(blockMesh(20, 20, 3), { ironing: 'on' })
    for (const m of movesOf(path, code.ironing)) expect(path.z[m]).toBeCloseTo(3, 6)
    expect(await extra(3)).toBeGreaterThan(20)
    expect((await extra(6)) / (await extra(3))).toBeCloseTo(1, 1)
  })
})

describe('in the air', () => {
  it('bridges are found, run along their span, and are laid from foot to foot', async () => {
    const { path, regions } = await layOut(table(), {})
    const bridges = movesOf(path, code.bridge)
    expect(bridges.length).toBeGreaterThan(10)
    for (const m of bridges) expect(path.z[m]).toBeCloseTo(4.2, 6)
    const along = bridges.filter((m) => lengthOf(path, m) > 5)
    for (const m of along) expect(Math.abs(path.y[m + 1]! - path.y[m]!)).toBeLessThan(1e-6)
    // 18 mm between the feet, and two lines' width of rest at either end.
    for (const m of along) expect(lengthOf(path, m)).toBeGreaterThan(18)
    expect(regions.bridgeSpan[0]).toBeCloseTo(18, 0)
  })

  it('an overhanging plate is no bridge', async () => {
    expect(movesOf((await layOut(mushroom(), {})).path, code.bridge)).toHaveLength(0)
  })

  it('tells the share of a line that nothing bears', async () => {
    const { path, layers } = await layOut(mushroom(), {})
    const layer = [...layers.top].findIndex((top) => top > 12.1)
    for (const m of movesOf(path, code.outerWall)) {
      if (path.z[m]! < 11.9 || m < path.layerStart[5]!) expect(path.air[m]).toBeLessThan(10)
      if (m >= path.layerStart[layer]! && m < path.layerStart[layer + 1]!) expect(path.air[m]).toBe(255)
    }
  })

  it('tells it by the formula h·tan(angle)/w on a cone (models §6)', async () => {
    const { Manifold } = await solids
    for (const degrees of [20, 40, 55]) {
      const grow = 8 * Math.tan((degrees * Math.PI) / 180)
      const { path } = await layOut(meshOf(Manifold.cylinder(8, 10, 10 + grow, 256)), {})
      const shares = movesOf(path, code.outerWall)
        .filter((m) => path.z[m]! > 2 && path.z[m]! < 7)
        .map((m) => path.air[m]! / 255)
      const mean = shares.reduce((sum, share) => sum + share, 0) / shares.length
      expect(mean).toBeCloseTo(Math.min(1, (0.2 * Math.tan((degrees * Math.PI) / 180)) / 0.4), 1)
    }
  })
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

  it('weigh more when denser, and more plastic still with a roof (CP-P2, common practice)', async () => {
    const grams = async (values: SettingValues) => laidVolume((await layOut(mushroom(), { supports: 'plain', ...values })).path).support
    expect(await grams({ supportDensity: 20 })).toBeGreaterThan(1.8 * (await grams({ supportDensity: 8 })))
    expect(await grams({ supportRoofLayers: 3 })).toBeGreaterThan(1.2 * (await grams({})))
    // Few lines cross so small a region, so patterns of one density differ by their rims.
    expect(Math.abs((await grams({ supportPattern: 'grid' })) / (await grams({ supportPattern: 'lines' })) - 1)).toBeLessThan(0.25)
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

describe('the foot', () => {
  it('has a skirt around everything, and a brim on the side that is asked for', async () => {
    const { Manifold } = await solids
    const ring = meshOf(Manifold.cylinder(2, 14, 14, 64).subtract(Manifold.cylinder(6, 8, 8, 64, true)))
    const foot = async (values: SettingValues) => (await layOut(ring, values)).regions.foot
    const radii = async (values: SettingValues) => {
      const { xy } = await foot(values)
      return Array.from({ length: xy.length / 2 }, (_, i) => Math.hypot(xy[2 * i]!, xy[2 * i + 1]!))
    }
    expect(await radii({})).toHaveLength(0)
    for (const r of await radii({ skirtLines: 2, skirtGap: 5 })) expect(r).toBeGreaterThan(18.9)
    for (const r of await radii({ brim: 'outer', brimWidth: 4 })) expect([r > 14, r < 18.2]).toEqual([true, true])
    for (const r of await radii({ brim: 'inner', brimWidth: 4 })) expect([r < 8, r > 3.7]).toEqual([true, true])
    expect((await foot({ brim: 'both', brimWidth: 4 })).polygonStart.length - 1).toBe(20)
  })

  it('has a first layer of its own width', async () => {
    const { path } = await layOut(blockMesh(20, 20, 1), { firstLayerWidth: 0.5 })
    for (let m = path.layerStart[0]!; m < path.layerStart[1]!; m++)
      if (path.feature[m] === code.outerWall) expect(path.width[m]).toBeCloseTo(0.5, 6)
  })
})

describe('travel', () => {
  it('that is said to stay inside does, and retracts less', async () => {
    const { Manifold } = await solids
    const horseshoe = meshOf(
      Manifold.cylinder(2, 15, 15, 64)
        .subtract(Manifold.cylinder(6, 10, 10, 64, true))
        .subtract(Manifold.cube([6, 40, 6], true).translate([0, -20, 0])),
    )
    const inside = await layOut(horseshoe, { travelInside: 'on', infillDensity: 10 })
    const straight = await layOut(horseshoe, { travelInside: 'off', infillDensity: 10 })
    expect(movesOf(inside.path, code.retract).length).toBeLessThan(movesOf(straight.path, code.retract).length)
    let pulled = false
    for (let m = 0; m < moveCount(inside.path); m++) {
      const { feature, x, y, layerStart } = inside.path
      if (feature[m] === code.retract) pulled = true
      if (feature[m] === code.pushBack) pulled = false
      if (feature[m] !== code.travel || pulled || lengthOf(inside.path, m) < 1.5) continue
      const layer = layerStart.findIndex((start) => start > m) - 1
      if (m - layerStart[layer]! < 3) continue
      expect(leavesPart(inside.layers.outlines, layer, x[m]!, y[m]!, x[m + 1]!, y[m + 1]!)).toBe(false)
    }
  })

  const towers = () => joined(moved(blockMesh(6, 6, 2), -10, 0, 0), moved(blockMesh(6, 6, 2), 10, 0, 0), moved(blockMesh(4, 4, 2), 0, 0, 0))

  it('wipes and coasts before it pulls, and lays as much less as it coasts', async () => {
    const plain = await layOut(towers(), {})
    const wiping = await layOut(towers(), { wipeLength: 2, coastLength: 0.5 })
    const pulls = movesOf(wiping.path, code.retract).length
    expect(pulls).toBe(movesOf(plain.path, code.retract).length)
    expect(total(wiping.path, code.wipe)).toBeCloseTo(2 * pulls, 0)
    expect(total(wiping.path, code.coast)).toBeCloseTo(0.5 * pulls, 1)
    const laid = (path: Toolpath) =>
      [...path.feature.keys()].filter((m) => isLaid(path.feature[m]!)).reduce((sum, m) => sum + lengthOf(path, m), 0)
    expect(laid(plain.path) - laid(wiping.path)).toBeCloseTo(0.5 * pulls, 1)
  })

  it('lifts never, always, or only over what is printed (S5)', async () => {
    const lifts = async (lift: Settings['lift']) => {
      const { path } = await layOut(towers(), { lift })
      let count = 0
      for (let m = 0; m < moveCount(path); m++) if (path.z[m + 1]! > path.z[m]! && !path.layerStart.includes(m)) count++
      return count
    }
    expect(await lifts('never')).toBe(0)
    expect(await lifts('always')).toBeGreaterThan(0)
    expect(await lifts('overPrinted')).toBeLessThan(await lifts('always'))
  })

  it('pulls back at layer changes when asked to', async () => {
    const count = async (retractAtLayer: 'on' | 'off') =>
      movesOf((await layOut(blockMesh(10, 10, 2), { retractAtLayer })).path, code.retract).length
    expect((await count('on')) - (await count('off'))).toBe(9)
  })
})

describe('layer heights', () => {
  it.each([
    'finial',
    'shade',
  ])('that follow the shape save time against fine ones on the %s, by 15 to 35 % (CP-T6, common practice)', async (key) => {
    const fine = { layerHeight: 0.12, firstLayerHeight: 0.2 }
    const uniform = timeOf(await layOut(demo(key), fine))
    const following = timeOf(
      await layOut(demo(key), { ...fine, layerMode: 'followShape', leastLayerHeight: 0.12, greatestLayerHeight: 0.2, largestCusp: 0.05 }),
    )
    expect(1 - following / uniform).toBeGreaterThan(0.15)
    expect(1 - following / uniform).toBeLessThan(0.35)
  })

  it('stay within the cusp', async () => {
    const { Manifold } = await solids
    const { layers } = await layOut(meshOf(Manifold.sphere(10, 128).translate([0, 0, 10])), { layerMode: 'followShape', largestCusp: 0.1 })
    for (const [i, top] of layers.top.entries()) {
      const height = layers.height[i]!
      if (i === 0 || height <= 0.08 + 1e-9) continue
      // On a sphere |n_z| is the height above its middle over the radius.
      const steepest = Math.max(Math.abs(top - 10), Math.abs(top - height - 10)) / 10
      expect(height * steepest).toBeLessThan(0.1 + 0.01)
    }
  })

  it('differ by height range where an exception says so', async () => {
    const { layers } = await layOut(blockMesh(10, 10, 6), {}, [{ name: 'fine', fromZ: 2, toZ: 4, values: { layerHeight: 0.1 } }])
    for (const [i, top] of layers.top.entries()) expect(layers.height[i]).toBeCloseTo(top > 2.05 && top < 4.05 ? 0.1 : 0.2, 9)
  })
})

describe('exceptions', () => {
  const box = { minX: -5, maxX: 5, minY: -20, maxY: 20 }

  it('override settings in a box, and divide lines at its rim', async () => {
    const laid = await layOut(blockMesh(30, 20, 2), { topLayers: 0, bottomLayers: 0 }, [
      { name: 'slow', fromZ: 0, box, values: { outerWallSpeed: 10 } },
    ])
    const { path, scopes } = laid
    for (let m = 0; m < moveCount(path); m++) {
      if (!isLaid(path.feature[m]!)) continue
      const middle = (path.x[m]! + path.x[m + 1]!) / 2
      expect(path.scope[m]).toBe(Math.abs(middle) < 5 ? 1 : 0)
    }
    expect(scopes.settingsOf(1).outerWallSpeed).toBe(10)
  })

  it('change density in a box', async () => {
    const { path } = await layOut(blockMesh(30, 20, 2), { topLayers: 0, bottomLayers: 0 }, [
      { name: 'dense', fromZ: 0, box, values: { infillDensity: 60 } },
    ])
    const sum = (inside: boolean) =>
      movesOf(path, code.infill)
        .filter((m) => Math.abs((path.x[m]! + path.x[m + 1]!) / 2) < 5 === inside)
        .reduce((s, m) => s + lengthOf(path, m), 0)
    // 10 mm of the inside's 27.6 lie in the box.
    expect(sum(true) / 10 / (sum(false) / 17.6)).toBeCloseTo(4, 0)
  })

  it('change walls by height, and speeds from a height on', async () => {
    const laid = await layOut(blockMesh(20, 20, 4), {}, [
      { name: 'thick', fromZ: 2, toZ: 3, values: { wallCount: 5 } },
      { name: 'slow top', fromZ: 3, speedPercent: 50, values: {} },
    ])
    const walls = (layer: number) =>
      [...laid.path.feature.subarray(laid.path.layerStart[layer], laid.path.layerStart[layer + 1])].filter((f) => f === code.innerWall)
        .length
    expect(walls(12) / walls(5)).toBeCloseTo(2, 9)
    expect(laid.scopes.settingsOf(2).outerWallSpeed).toBe(settingsOf().outerWallSpeed / 2)
  })
})
