import { describe, expect, it } from 'vitest'
import type { Mesh } from '../mesh/mesh'
import type { Settings, SettingValues } from '../profile/settings'
import { layerCount } from '../slicing/layers'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { demo, lengthOf, movesOf, table, timeOf, total } from '../testing/paths'
import { blockMesh, meshOf, solids, turnedAbout } from '../testing/solids'
import { laidVolume } from './laidVolume'
import { code } from './toolpath'

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

  // Lines that begin on the rim of an axis-parallel block were dropped once.
  it.each([
    'lines',
    'grid',
    'triangles',
    'hexagons',
    'cubic',
    'gyroid',
    'concentric',
  ] as const)('as %s lays a quarter of solid within 3 %, whichever way it and the part are turned', async (infillPattern) => {
    for (const turned of [0, 17]) {
      for (const infillAngle of [0, 1, 30, 45, 90, -90, 180]) {
        const values = { infillDensity: 25, infillAngle, infillPattern, wallCount: 1, topLayers: 0, bottomLayers: 0 }
        const { path } = await layOut(turnedAbout(blockMesh(70, 70, 8), turned), values)
        const laid = movesOf(path, code.infill).reduce((sum, m) => sum + path.area[m]! * lengthOf(path, m), 0)
        expect(Math.abs(laid / (69.2 * 69.2 * 8) / 0.25 - 1), `turned by ${turned}°, lines at ${infillAngle}°`).toBeLessThan(0.03)
      }
    }
  })

  describe('that only props tops', () => {
    const laidBy = async (mesh: Mesh, infillPattern: Settings['infillPattern']) => {
      const { path } = await layOut(mesh, { infillPattern })
      return { infill: total(path, code.infill), all: laidVolume(path).total }
    }
    /** A block with a pit in its middle, whose floor is a top far from every wall. */
    const pitted = async (): Promise<Mesh> => {
      const { Manifold } = await solids
      return meshOf(Manifold.cube([60, 60, 20]).subtract(Manifold.cube([20, 20, 10]).translate([20, 20, 14])))
    }

    it('is lightest of all, and saves a seventh to two fifths of the filament of a grid (CP-K3, CP-T12, common practice)', async () => {
      for (const mesh of [blockMesh(30, 30, 20), blockMesh(60, 60, 20), blockMesh(40, 40, 40), demo('carry-hook'), demo('finial')]) {
        const propping = await laidBy(mesh, 'topPropping')
        for (const pattern of ['lines', 'grid', 'triangles', 'hexagons', 'cubic', 'gyroid', 'concentric'] as const)
          expect(propping.infill).toBeLessThan(0.8 * (await laidBy(mesh, pattern)).infill)
        const saved = 1 - propping.all / (await laidBy(mesh, 'grid')).all
        expect(saved).toBeGreaterThan(0.13)
        expect(saved).toBeLessThan(0.39)
      }
    })

    it('stands right under the tops, and not where a hollow can close from the walls', async () => {
      const { path } = await layOut(blockMesh(30, 30, 20), { infillPattern: 'topPropping' })
      const onLayer = (layer: number): number =>
        movesOf(path, code.infill)
          .filter((m) => m >= path.layerStart[layer]! && m < path.layerStart[layer + 1]!)
          .reduce((sum, m) => sum + lengthOf(path, m), 0)
      const full = (27.6 ** 2 * 0.15) / 0.4
      expect(onLayer(95)).toBeGreaterThan(0.9 * full)
      expect(onLayer(10)).toBe(0)
    })

    it('hangs nowhere farther over what lies below than a line may', async () => {
      const kernel = await testKernel
      const parts = {
        block: blockMesh(30, 30, 20),
        pitted: await pitted(),
        hook: demo('carry-hook'),
        finial: demo('finial'),
        table: table(),
      }
      for (const [name, mesh] of Object.entries(parts)) {
        const { laid, layers, regions } = await layOut(mesh, { infillPattern: 'topPropping' })
        const { propping } = laid
        let total = 0
        for (let layer = 1; layer < layerCount(layers); layer++) {
          kernel.run((ops) => {
            const here = ops.read(propping!, layer)
            total += ops.area(here)
            const solid = ops.subtract(ops.read(layers.outlines, layer - 1), ops.read(regions.infill, layer - 1))
            const borne = ops.swell(ops.unite(ops.gather([solid, ops.read(propping!, layer - 1)])), 0.2 * Math.sqrt(3) + 0.1)
            expect(ops.area(ops.subtract(here, borne)), `${name}, layer ${layer}`).toBeLessThan(0.05)
          })
        }
        expect(total, name).toBeGreaterThan(0)
      }
    })
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
