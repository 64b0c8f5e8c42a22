import { beforeAll, describe, expect, it } from 'vitest'
import type { PolygonKernel } from '../geometry/polygon'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, partOf, solids } from '../testing/solids'
import { type SurfaceMap, surfaceMap } from './surfaceMap'

const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})
const finite = (values: ArrayLike<number>): number[] => Array.from(values).filter(Number.isFinite)

describe('the surface of a block', () => {
  let map: SurfaceMap
  beforeAll(() => {
    map = surfaceMap(partOf('surface block', blockMesh(30, 20, 6)), placement, setupOf(), { layerHeight: 0.2 }, { kernel })
  })

  it('stands upright at its sides, lies level on top, and takes the face of the bed below', () => {
    expect([...map.leanDeg].map(Math.round).sort((a, b) => a - b)).toEqual(
      [-90, -90, 0, 0, 0, 0, 0, 0, 0, 0, 90, 90].map((lean) => expect.closeTo(lean, 5)),
    )
    const onBed = [...map.leanDeg.keys()].filter((t) => map.leanDeg[t]! < -89)
    for (const t of map.leanDeg.keys()) expect(Number.isNaN(map.raUm[t]!)).toBe(onBed.includes(t))
  })

  it('has the edge of the outer wall on every side', () => {
    expect(finite(map.offMm)).toHaveLength(8)
    // Walls are laid half a line inside; contours are simplified by 0.0125 mm.
    for (const mm of finite(map.offMm)) expect(mm).toBeLessThan(0.02)
    expect(map.lostMm2.every((mm2) => mm2 < 0.05)).toBe(true)
  })

  it('has one seam a layer, on its face', () => {
    expect(map.seams.length / 3).toBe(30)
    for (let i = 0; i < map.seams.length; i += 3) {
      const fromSide = Math.min(15 - Math.abs(map.seams[i]!), 10 - Math.abs(map.seams[i + 1]!))
      expect(fromSide).toBeCloseTo(0, 1)
    }
  })
})

it('a cone that widens upward hangs over by its own angle', async () => {
  const { Manifold } = await solids
  const cone = partOf('surface cone', meshOf(Manifold.cylinder(10, 10, 20, 128)))
  const map = surfaceMap(cone, placement, setupOf(), {}, { kernel })
  const sides = [...map.leanDeg].filter((lean) => Math.abs(lean) < 80)
  expect(sides.length).toBeGreaterThan(100)
  // Half the opening angle of a cone that widens by 10 over 10 mm.
  for (const lean of sides) expect(lean).toBeCloseTo(-45, 0)
})

it('the seam of a hole lies on the hole’s face', async () => {
  const { Manifold } = await solids
  const tube = partOf('surface tube', meshOf(Manifold.cylinder(4, 10, 10, 64).subtract(Manifold.cylinder(4, 6, 6, 64))))
  const { seams } = surfaceMap(tube, placement, setupOf(), {}, { kernel })
  const radii = Array.from({ length: seams.length / 3 }, (_, i) => Math.hypot(seams[3 * i]!, seams[3 * i + 1]!))
  expect(radii.filter((r) => Math.abs(r - 10) < 0.1).length).toBe(radii.length / 2)
  expect(radii.filter((r) => Math.abs(r - 6) < 0.1).length).toBe(radii.length / 2)
})

it('a fin thinner than any line is lost, and told so where it stands', () => {
  const fin = partOf('surface fin', joined(blockMesh(20, 20, 4), moved(blockMesh(0.08, 12, 4), 0, 0, 4)))
  const map = surfaceMap(fin, placement, setupOf(), { layerHeight: 0.2, firstLayerHeight: 0.2 }, { kernel })
  expect(map.lostMm2[10]).toBeLessThan(0.05)
  expect(map.lostMm2[30]).toBeGreaterThan(0.5)
})
