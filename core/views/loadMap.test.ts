import { beforeAll, describe, expect, it } from 'vitest'
import { usualGrip } from '../physics/strength/grip'
import { loadKinds } from '../physics/strength/sectionLoads'
import type { PredictOptions } from '../pipeline/layDown'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, moved, partOf } from '../testing/solids'
import { bearsIn } from './bearsMask'
import { type LoadMap, loadMap } from './loadMap'

const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
const stepped = partOf('load map', joined(blockMesh(30, 20, 6), moved(blockMesh(8, 8, 6), 0, 0, 6)))
let options: PredictOptions
let p: Prediction
let map: LoadMap
beforeAll(async () => {
  options = {
    kernel: await testKernel,
    cache: new StageCache(20),
    load: { grip: usualGrip, direction: { azimuthDeg: 30, elevationDeg: 50 } },
  }
  p = predict(stepped, placement, setupOf(), {}, options)
  map = loadMap(stepped, placement, setupOf(), {}, options)
})

describe('loads along a part', () => {
  it('have the figure for their least, along every axis and along the direction asked for', () => {
    for (const kind of loadKinds) {
      for (const axis of ['x', 'y', 'z'] as const) {
        const figure = p.strength[`${kind}${axis.toUpperCase() as 'X' | 'Y' | 'Z'}`]
        // What is pressed gives way as a whole a little before its weakest section.
        if (figure.by === 'strength' && !figure.unfit && kind !== 'crush')
          expect(Math.min(...map.axes[axis].loadN[kind])).toBeCloseTo(figure.loadN, 6)
      }
      const { by, unfit } = p.oblique![kind]
      if (by === 'strength' && !unfit && kind !== 'crush') expect(Math.min(...map.free!.loadN[kind])).toBeCloseTo(p.oblique![kind].loadN, 6)
    }
    expect(Math.hypot(...map.free!.along)).toBeCloseTo(1, 12)
    expect(map.free!.along[2]).toBeCloseTo(Math.sin((50 * Math.PI) / 180), 12)
  })

  it('are those of the smaller section where the part steps in', () => {
    const { atMm, areaMm2 } = map.axes.z
    const low = areaMm2[[...atMm].findIndex((z) => z > 3)]!
    const high = areaMm2[[...atMm].findIndex((z) => z > 9)]!
    // 600 mm² below and 64 above; infill counts with its share of stiffness, so the ratio is near theirs.
    expect(low / high).toBeGreaterThan(4)
  })

  it('come with the part that bears them, and without a direction when none is asked for', () => {
    expect(map.corners.length / 9).toBe(stepped.report.triangles)
    expect(loadMap(stepped, placement, setupOf(), {}, { kernel: options.kernel }).free).toBeUndefined()
  })
})

describe('what bears', () => {
  it('is told where a limb leads nowhere, and left untold where all of the part bears', () => {
    const foot = moved(blockMesh(30, 6, 4), 0, -17, 0)
    const shank = moved(blockMesh(6, 40, 4), 12, 0, 0)
    const peg = moved(blockMesh(6, 20, 4), -12, -10, 0)
    const pegged = partOf('pegged', joined(foot, shank, peg))
    const { axes } = loadMap(pegged, placement, setupOf(), {}, { kernel: options.kernel })
    const { bears } = axes.y
    // Beside the peg the shank alone bears; at the foot, which is held, nothing is told apart.
    expect(bearsIn(bears!, -8, 12)).toBe(true)
    expect(bearsIn(bears!, -8, -12)).toBe(false)
    expect(bearsIn(bears!, -8, 0)).toBe(false)
    expect(bearsIn(bears!, 500, 12)).toBe(false)
    // Along z all three go from the bottom to the top.
    for (const x of [-12, 0, 12]) expect(bearsIn(axes.z.bears!, 2, x)).toBe(true)
  })
})
