import { describe, expect, it } from 'vitest'
import { layOut } from '../testing/layOut'
import { demo, timeOf } from '../testing/paths'
import { blockMesh, meshOf, solids } from '../testing/solids'

describe('layer heights', () => {
  it.each([
    'finial',
    'shade',
  ])('that follow the shape save a fifth to a third of the time against fine ones on the %s (CP-T6, common practice)', async (key) => {
    const fine = { layerHeight: 0.12, firstLayerHeight: 0.2 }
    const uniform = timeOf(await layOut(demo(key), fine))
    const following = timeOf(await layOut(demo(key), { ...fine, layerMode: 'followShape' }))
    expect(1 - following / uniform).toBeGreaterThan(0.17)
    expect(1 - following / uniform).toBeLessThan(0.35)
  })

  it('stay within the cusp', async () => {
    const { Manifold } = await solids
    const { layers } = await layOut(meshOf(Manifold.sphere(10, 128).translate([0, 0, 10])), { layerMode: 'followShape', largestCusp: 0.1 })
    for (const [i, top] of layers.top.entries()) {
      const height = layers.height[i]!
      if (i === 0 || height <= 0.12 + 1e-9) continue
      // On a sphere |n_z| is the height above its middle over the radius.
      const steepest = Math.max(Math.abs(top - 10), Math.abs(top - height - 10)) / 10
      expect(height * steepest).toBeLessThan(0.1 + 0.01)
    }
  })

  it('differ by height range where an override says so', async () => {
    const { layers } = await layOut(blockMesh(10, 10, 6), {}, [{ name: 'fine', fromZ: 2, toZ: 4, values: { layerHeight: 0.1 } }])
    for (const [i, top] of layers.top.entries()) expect(layers.height[i]).toBeCloseTo(top > 2.05 && top < 4.05 ? 0.1 : 0.2, 9)
  })
})
