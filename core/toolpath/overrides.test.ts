import { describe, expect, it } from 'vitest'
import { type Override, overrideSchema } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { coverageOf } from '../testing/coverage'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { lengthOf, movesOf } from '../testing/paths'
import { settingsOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { code, isLaid, moveCount } from './toolpath'

describe('overrides', () => {
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

  it('side by side divide a line once where they meet, so that the nozzle does not stop there', async () => {
    const { path } = await layOut(blockMesh(30, 20, 2), { topLayers: 0, bottomLayers: 0 }, [
      { name: 'left', fromZ: 0, box: { minX: -20, maxX: 0, minY: -20, maxY: 20 }, values: { outerWallSpeed: 40 } },
      { name: 'right', fromZ: 0, box: { minX: 0, maxX: 20, minY: -20, maxY: 20 }, values: { outerWallSpeed: 60 } },
    ])
    const laid = [...path.feature.keys()].filter((m) => isLaid(path.feature[m]!))
    expect(laid.filter((m) => lengthOf(path, m) < 1e-4)).toEqual([])
    expect(new Set(laid.map((m) => path.scope[m])).size).toBeGreaterThan(1)
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
    expect(laid.scopes.settingsOf(laid.path.scope.at(-1)!).outerWallSpeed).toBe(settingsOf().outerWallSpeed / 2)
  })

  it('change walls in a box, without a wall along its rim', async () => {
    const laid = await layOut(blockMesh(30, 20, 2), { wallCount: 2, topLayers: 0, bottomLayers: 0, infillDensity: 100 }, [
      { name: 'strong', fromZ: 0, box, values: { wallCount: 5 } },
    ])
    const { path } = laid
    const [from, to] = [path.layerStart[5]!, path.layerStart[6]!]
    const walls = [...path.feature.keys()].filter((m) => m >= from && m < to && [code.outerWall, code.innerWall].includes(path.feature[m]!))
    const lengthIn = (inside: boolean) =>
      walls.filter((m) => Math.abs((path.x[m]! + path.x[m + 1]!) / 2) < 5 === inside).reduce((sum, m) => sum + lengthOf(path, m), 0)
    // Two sides of 10 mm cross the box, five lines deep; outside there are two lines round the two ends.
    expect(lengthIn(true)).toBeCloseTo(2 * 10 * 5, 3)
    const loop = (inset: number) => 2 * (30 - 2 * inset) + 2 * (20 - 2 * inset) - 2 * 10
    expect(lengthIn(false)).toBeCloseTo(loop(0.2) + loop(0.6), 3)
    // Inside the box walls run along it only: none turns at its rim.
    for (const m of walls.filter((m) => Math.abs((path.x[m]! + path.x[m + 1]!) / 2) < 4.99))
      expect(path.y[m]).toBeCloseTo(path.y[m + 1]!, 9)
    const { part, laid: area, strips, covered, outside } = coverageOf(laid, 5, await testKernel)
    expect(area / part).toBeGreaterThan(0.98)
    expect(area / part).toBeLessThan(1.02)
    expect(outside).toBeLessThan(0.01)
    expect((strips - covered) / part).toBeLessThan(0.025)
  })

  it('change the width of lines in a box', async () => {
    const { path } = await layOut(blockMesh(30, 20, 2), { wallCount: 2 }, [{ name: 'wide', fromZ: 0, box, values: { lineWidth: 0.6 } }])
    for (let m = path.layerStart[3]!; m < path.layerStart[4]!; m++) {
      if (path.feature[m] !== code.innerWall) continue
      expect(path.width[m]).toBeCloseTo(Math.abs((path.x[m]! + path.x[m + 1]!) / 2) < 5 ? 0.6 : 0.4, 6)
    }
  })

  it('change tops and bottoms in a box', async () => {
    const { path } = await layOut(blockMesh(30, 20, 4), { topLayers: 2, bottomLayers: 0 }, [
      { name: 'thick top', fromZ: 0, box, values: { topLayers: 6 } },
    ])
    const topBottom = (layer: number, inside: boolean) =>
      movesOf(path, code.topBottom)
        .filter((m) => m >= path.layerStart[layer]! && m < path.layerStart[layer + 1]!)
        .filter((m) => Math.abs((path.x[m]! + path.x[m + 1]!) / 2) < 5 === inside)
        .reduce((sum, m) => sum + lengthOf(path, m), 0)
    const top = path.layerStart.length - 2
    expect(topBottom(top, true)).toBeGreaterThan(100)
    expect(topBottom(top, false)).toBeGreaterThan(100)
    expect(topBottom(top - 4, true)).toBeGreaterThan(100)
    expect(topBottom(top - 4, false)).toBe(0)
    expect(topBottom(top - 8, true)).toBe(0)
  })

  it('hold by the hundred: each band has its own, and a box across them joins all of them', async () => {
    const bands = Array.from({ length: 100 }, (_, i) => ({
      name: `band ${i}`,
      fromZ: 0.4 + 0.2 * i,
      toZ: 0.6 + 0.2 * i,
      values: { outerWallSpeed: 20 + i },
    }))
    const across = { name: 'across', fromZ: 0, box: { minX: 0, maxX: 9, minY: -9, maxY: 9 }, values: { infillSpeed: 15 } }
    const { path, scopes } = await layOut(blockMesh(8, 8, 21), {}, [...bands, across])
    // None, the bands, the box, and the box with each band.
    expect(path.sets).toHaveLength(1 + 100 + 1 + 100)
    for (const m of movesOf(path, code.outerWall)) {
      const layer = path.layerStart.findLastIndex((start) => start <= m)
      const band = layer - 2
      const { outerWallSpeed, infillSpeed } = scopes.settingsOf(path.scope[m]!)
      expect(outerWallSpeed).toBe(band >= 0 && band < 100 ? 20 + band : settingsOf().outerWallSpeed)
      const middle = (path.x[m]! + path.x[m + 1]!) / 2
      if (Math.abs(middle) > 1e-6) expect(infillSpeed).toBe(middle > 0 ? 15 : settingsOf().infillSpeed)
    }
  })

  it('give lines the flow that is asked for there, and the first layer its own on top', async () => {
    const volumeBy = async (values: SettingValues, overrides: readonly Override[] = []) => {
      const { path } = await layOut(blockMesh(12, 12, 3), values, overrides)
      const of = (from: number, to: number): number => {
        let sum = 0
        for (let m = path.layerStart[from]!; m < path.layerStart[to]!; m++) sum += path.area[m]! * lengthOf(path, m)
        return sum
      }
      return { bed: of(0, 1), low: of(1, 8), high: of(8, 15) }
    }
    const plain = await volumeBy({})
    const more = await volumeBy({ flow: 95, firstLayerFlow: 110 }, [{ name: 'wet', fromZ: 1.6, values: { flow: 104 } }])
    expect(more.bed / plain.bed).toBeCloseTo(0.95 * 1.1, 5)
    expect(more.low / plain.low).toBeCloseTo(0.95, 5)
    expect(more.high / plain.high).toBeCloseTo(1.04, 5)
  })

  it('refuse what belongs to the whole part, and in a box what belongs to whole layers', () => {
    const of = (values: object, more: object = {}) => overrideSchema.safeParse({ name: 'here', fromZ: 0, values, ...more })
    expect(of({ wallCount: 3 }, { box }).success).toBe(true)
    expect(of({ layerHeight: 0.1 }).success).toBe(true)
    expect(of({ supports: 'off', supportAngle: 60, supportDensity: 20 }, { box }).success).toBe(true)
    expect(of({ layerHeight: 0.1 }, { box }).error?.issues[0]?.message).toContain('whole layers')
    expect(of({ supportGap: 0.4 }).error?.issues[0]?.message).toContain('whole part')
    expect(of({ skirtLines: 4 }).error?.issues[0]?.path).toEqual(['values', 'skirtLines'])
  })
})
