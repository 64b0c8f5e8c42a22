import { beforeAll, describe, expect, it } from 'vitest'
import { limiters } from '../motion/limiters'
import type { PredictOptions } from '../pipeline/layDown'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { code, isLaid } from '../toolpath/toolpath'
import { type DrawnMoves, drawnMoves } from './drawnMoves'

const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
const block = partOf('drawn moves', blockMesh(30, 20, 6))
let p: Prediction
let moves: DrawnMoves
beforeAll(async () => {
  const options: PredictOptions = { kernel: await testKernel, cache: new StageCache(20) }
  p = predict(block, placement, setupOf(), {}, options)
  moves = drawnMoves(block, placement, setupOf(), {}, options)
})

describe('moves to draw', () => {
  it('take as long as the figure says, each beginning where the one before it ends', () => {
    const { start, duration, layerStart, layerTime } = moves
    expect(layerTime.reduce((sum, s) => sum + s, 0)).toBeCloseTo(p.timeS, 6)
    for (let layer = 0; layer < layerTime.length; layer++) {
      expect(start[layerStart[layer]!]).toBe(0)
      const last = layerStart[layer + 1]! - 1
      expect(start[last]! + duration[last]!).toBeCloseTo(layerTime[layer]!, 2)
    }
  })

  it('hold the plastic that the figure says', () => {
    const { x, y, area, feature } = moves
    let volume = 0
    for (let m = 0; m < feature.length; m++) if (isLaid(feature[m]!)) volume += area[m]! * Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
    expect(volume / p.filament.volumeMm3).toBeCloseTo(1, 3)
  })

  it('lie on the tops of their layers, and every limiter is one that the figures know', () => {
    const { z, layerStart, layerTop, feature } = moves
    for (let layer = 0; layer < layerTop.length; layer++)
      for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
        if (feature[m] === code.outerWall) expect(z[m + 1]).toBeCloseTo(layerTop[layer]!, 4)
    // Of a small block some moves must be too short to reach their speed.
    const met = new Set(moves.limiter)
    expect(met.size).toBeGreaterThan(1)
    for (const limiter of met) expect(limiters[limiter]).toBeDefined()
  })

  it('can be handed to another thread without a copy', () => {
    const buffers = Object.values(moves).map(({ buffer }) => buffer)
    expect(new Set(buffers).size).toBe(buffers.length)
    for (const own of Object.values(moves)) expect(own.byteLength).toBe(own.buffer.byteLength)
  })
})
