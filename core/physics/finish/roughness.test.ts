import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import type { Mesh } from '../../mesh/mesh'
import { toBeltFrame } from '../../mesh/tiltedBelt'
import type { Layers } from '../../slicing/layers'
import { slice } from '../../slicing/slice'
import { testKernel } from '../../testing/kernel'
import { everywhere } from '../../testing/setups'
import { blockMesh, meshOf, solids } from '../../testing/solids'
import { beadRoughness, facetRoughness as facetRoughnessOf } from './roughness'
import type { Treatment } from './surfaceFigures'
import { surfaceFigures as surfaceFiguresOf } from './surfaceFigures'

const surfaceFigures = (mesh: Mesh, layers: Layers, treatment: Treatment = { lineWidth: 0.4, ironed: false }) =>
  surfaceFiguresOf(mesh, layers, treatment, medians.finish)

const facetRoughness = (height: number, tilt: number, down: boolean) => facetRoughnessOf({ height, width: 0.4 }, tilt, down, medians.finish)

const degrees = (angle: number): number => (angle * Math.PI) / 180

// Pandey, Reddy & Dhande 2003; constants from memory.
describe('roughness of a layered facet', () => {
  it('lies between 69.28 and 72.36 µm per mm of layer on a vertical wall', () => {
    expect(facetRoughness(1, 0, false)).toBeGreaterThanOrEqual(69.28)
    expect(facetRoughness(1, 0, false)).toBeLessThanOrEqual(72.36)
  })

  it('grows as 1/cos up to 70°', () => {
    for (const angle of [10, 30, 45, 60, 70])
      expect(facetRoughness(0.2, degrees(angle), false) * Math.cos(degrees(angle))).toBeCloseTo(facetRoughness(0.2, 0, false), 9)
  })

  it('is that of lines side by side on a flat top, by their width and height, and straight between 70° and 90°', () => {
    // The profile by itself: flat in the middle, a quarter of a circle down to half of the height at either side.
    for (const [height, width] of [
      [0.2, 0.4],
      [0.2, 0.6],
      [0.1, 0.25],
      [0.3, 0.8],
    ] as const) {
      const n = 40_000
      const depths = Array.from({ length: n }, (_, i) => {
        const fromEdge = width / 2 - Math.abs(((i + 0.5) / n - 0.5) * width)
        const x = Math.max(0, height / 2 - fromEdge)
        return height / 2 - Math.sqrt(height ** 2 / 4 - x * x)
      })
      const mean = depths.reduce((sum, depth) => sum + depth, 0) / n
      const ra = depths.reduce((sum, depth) => sum + Math.abs(depth - mean), 0) / n
      expect(beadRoughness({ height, width }) / (1000 * ra)).toBeCloseTo(1, 3)
    }
    expect(beadRoughness({ height: 0.2, width: 0.4 })).toBeCloseTo(14, 0)
    expect(beadRoughness({ height: 0.2, width: 0.6 })).toBeCloseTo(11, 0)
    expect(facetRoughness(0.2, degrees(90), false)).toBeCloseTo(beadRoughness({ height: 0.2, width: 0.4 }), 9)
    const [at70, at80, at90] = [70, 80, 90].map((angle) => facetRoughness(0.2, degrees(angle), false)) as [number, number, number]
    expect(at80).toBeCloseTo((at70 + at90) / 2, 9)
  })

  it('is a fifth worse facing down', () => expect(facetRoughness(0.2, 0.4, true)).toBeCloseTo(1.2 * facetRoughness(0.2, 0.4, false), 9))

  it('is of the order of a stair without rounded edges: a saw-tooth of height c has Ra = c/4 (ISO 21920-2, definition)', () => {
    // Steps of height t on a slope at angle θ to the vertical stand t·sin θ proud of it.
    const n = 100_000
    const saw = Array.from({ length: n }, (_, i) => i / n - 0.5)
    expect(saw.reduce((sum, y) => sum + Math.abs(y), 0) / n).toBeCloseTo(1 / 4, 4)
    const sawtooth = (1000 * 0.2 * Math.sin(degrees(60))) / 4
    expect(facetRoughness(0.2, degrees(60), false) / sawtooth).toBeGreaterThan(0.5)
    expect(facetRoughness(0.2, degrees(60), false) / sawtooth).toBeLessThan(2)
  })
})

describe('roughness of a part', () => {
  it('weighs facets by area and leaves out the face on the bed', async () => {
    const [w, d, h] = [20, 30, 10]
    const mesh = blockMesh(w, d, h)
    const layers = slice(mesh, everywhere({ layerHeight: 0.2, firstLayerHeight: 0.2 }), await testKernel)
    const { raMeanUm, ra95Um } = surfaceFigures(mesh, layers)
    const [wall, top] = [facetRoughness(0.2, 0, false), facetRoughness(0.2, degrees(90), false)]
    const sides = 2 * (w + d) * h
    expect(raMeanUm).toBeCloseTo((wall * sides + top * w * d) / (sides + w * d), 6)
    expect(ra95Um).toBeCloseTo(Math.max(wall, top), 6)
  })

  it('can be told of the sides or the top alone, and knows ironed tops and supported undersides', async () => {
    const { Manifold } = await solids
    // A block with a level underside half-way up.
    const part = meshOf(Manifold.cube([10, 10, 10]).add(Manifold.cube([20, 10, 5]).translate([0, 0, 5])))
    const layers = slice(part, everywhere({ layerHeight: 0.2, firstLayerHeight: 0.2 }), await testKernel)
    const plain = surfaceFigures(part, layers)
    expect(plain.sides.raMeanUm).toBeCloseTo(facetRoughness(0.2, 0, false), 6)
    expect(plain.top.raMeanUm).toBeCloseTo(facetRoughness(0.2, degrees(90), false), 6)
    const ironed = surfaceFigures(part, layers, { lineWidth: 0.4, ironed: true })
    expect(ironed.top.raMeanUm / plain.top.raMeanUm).toBeCloseTo(0.3, 6)
    expect(ironed.sides).toEqual(plain.sides)
    const supported = surfaceFigures(part, layers, { lineWidth: 0.4, ironed: false, supportedBeyond: degrees(50) })
    expect(supported.ra95Um / plain.ra95Um).toBeCloseTo(1.7, 6)
    expect(supported.top).toEqual(plain.top)
  })

  it('leaves out the face on a tilted belt too', async () => {
    const [w, d, h] = [20, 30, 10]
    const { mesh, belt } = toBeltFrame(blockMesh(w, d, h), 45)
    const layers = { ...slice(mesh, everywhere({ layerHeight: 0.2, firstLayerHeight: 0.2 }), await testKernel), belt }
    const slope = (down: boolean) => facetRoughness(0.2, degrees(45), down)
    // The sides stand across the layers; top and far end lean up by 45°, the near end hangs over as much.
    const faces = { sides: 2 * d * h, top: w * d, ends: 2 * w * h }
    const total = faces.sides + faces.top + faces.ends
    const expected = faces.sides * facetRoughness(0.2, 0, false) + faces.top * slope(false) + w * h * (slope(true) + slope(false))
    expect(surfaceFigures(mesh, layers).raMeanUm).toBeCloseTo(expected / total, 4)
  })

  it('grows with the layer height (CP-S1, common practice)', async () => {
    const kernel = await testKernel
    const mesh = blockMesh(10, 10, 10)
    const at = (layerHeight: number) =>
      surfaceFigures(mesh, slice(mesh, everywhere({ layerHeight, firstLayerHeight: layerHeight }), kernel)).raMeanUm
    expect(at(0.28) / at(0.14)).toBeCloseTo(2, 0)
  })
})
