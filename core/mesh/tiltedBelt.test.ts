import { describe, expect, it } from 'vitest'
import { planMotion } from '../motion/planMotion'
import { type Override, Scopes } from '../profile/overrides'
import { isIn } from '../profile/patch'
import type { SettingValues } from '../profile/settings'
import { findRegions } from '../regions/findRegions'
import { slice } from '../slicing/slice'
import { testKernel } from '../testing/kernel'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { toBeltAxes } from '../toolpath/beltAxes'
import { chooseSeams } from '../toolpath/chooseSeams'
import { copyPlaces } from '../toolpath/copyPaths'
import { toolpathWork } from '../toolpath/layPaths'
import { code, ToolpathBuilder } from '../toolpath/toolpath'
import { doAlone } from '../work/doAlone'
import { measureVolume } from './measure'
import { beltAt, toBeltFrame } from './tiltedBelt'

async function timeOnBelt(length: number, values: SettingValues, overrides: readonly Override[]): Promise<number> {
  const kernel = await testKernel
  const setup = setupOf('towline')
  const settings = settingsOf({ minLayerTime: 0, skirtLines: 0, ...values }, setup)
  const scopes = new Scopes(settings, overrides)
  const { mesh, belt } = toBeltFrame(blockMesh(20, length, 15), 45)
  const layers = { ...slice(mesh, () => settings, kernel), belt }
  const regions = findRegions(layers, new Scopes(settings), 0.4, kernel)
  const { path } = doAlone(toolpathWork(layers, regions, chooseSeams(layers, regions, scopes), scopes), kernel)
  const planned = new Scopes(settings, overrides, path.sets)
  return planMotion(path, (scope) => planned.settingsOf(scope), setup.printer).layerTime.reduce((sum, time) => sum + time, 0)
}

describe('a tilted belt', () => {
  it('turns the part without bending or mirroring it', () => {
    const { mesh } = toBeltFrame(blockMesh(20, 60, 10), 45)
    expect(measureVolume(mesh)).toBeCloseTo(20 * 60 * 10, 6)
  })

  it.each([30, 45, 60])('at %i° lays every layer from the belt on', async (angle) => {
    const { mesh, belt } = toBeltFrame(blockMesh(20, 60, 10), angle)
    const { outlines, top, height } = slice(mesh, () => settingsOf(), await testKernel)
    // The first is the edge on the belt; those that cut the far end of the part begin above the belt, every other on it.
    const first = outlines.xy.subarray(0, 2 * outlines.polygonStart[outlines.groupStart[1]!]!).filter((_, i) => i % 2 === 1)
    expect(Math.max(...first) - beltAt(belt, top[0]!)).toBeLessThan(1)
    let touching = 0
    for (let layer = 0; layer < top.length; layer++) {
      const line = beltAt(belt, top[layer]! - height[layer]! / 2)
      let nearest = Infinity
      for (let i = outlines.polygonStart[outlines.groupStart[layer]!]!; i < outlines.polygonStart[outlines.groupStart[layer + 1]!]!; i++)
        nearest = Math.min(nearest, outlines.xy[2 * i + 1]! - line)
      expect(nearest).toBeGreaterThan(-1e-3)
      if (nearest < 1e-3) touching++
    }
    const onBelt = 60 * Math.sin((angle * Math.PI) / 180)
    expect(touching * 0.2).toBeGreaterThan(0.97 * onBelt)
  })

  it('needs the slow outer wall near the belt only: a beam is done in a good deal less time (CP-B1, common practice)', async () => {
    const values = {
      outerWallSpeed: 80,
      innerWallSpeed: 80,
      infillSpeed: 100,
      topBottomSpeed: 80,
      firstLayerSpeed: 20,
      slowFirstLayers: 10,
    }
    const allSlow = await timeOnBelt(80, { ...values, outerWallSpeed: 20 }, [])
    const nearBelt = await timeOnBelt(80, values, [{ name: 'near the belt', fromZ: 0, nearBelt: 0.5, values: { outerWallSpeed: 20 } }])
    expect(nearBelt).toBeLessThan(0.8 * allSlow)
    expect(nearBelt).toBeGreaterThan(await timeOnBelt(80, values, []))
  })

  it('lets overrides hold where they lie on the part, whatever the layer', () => {
    const { belt } = toBeltFrame(blockMesh(20, 60, 10), 35)
    const scopes = new Scopes(settingsOf(), [
      { name: 'top', fromZ: 6, toZ: 8, values: { infillDensity: 40 } },
      { name: 'end', fromZ: 0, box: { minX: -10, maxX: 0, minY: 20, maxY: 30 }, values: { infillDensity: 60 } },
      { name: 'all', fromZ: 0, values: { infillDensity: 20 } },
    ])
    const [sin, cos] = [Math.sin((35 * Math.PI) / 180), Math.cos((35 * Math.PI) / 180)]
    // Points of the part, turned into the frame of the layers.
    for (const [x, y, height, set] of [
      [3, 0, 7, [0, 2]],
      [3, 0, 5, [2]],
      [-3, 25, 2, [1, 2]],
      [-3, 25, 7, [0, 1, 2]],
      [3, 25, 2, [2]],
      [-3, 15, 2, [2]],
    ] as const) {
      const n = y * sin + height * cos
      const z = n - belt.start / belt.slope
      const [u, v] = [-x, height * sin - y * cos]
      const patches = scopes.partialAt(z, belt).filter((patch) => isIn(patch, u, v))
      const scope = patches.reduce((all, { of }) => scopes.with(all, of), scopes.ofLayer(z, belt))
      expect(scopes.sets[scope]).toEqual(set)
    }
  })

  it('is run in its own axes: along the gantry from the belt on, and the way of the belt', () => {
    const { belt } = toBeltFrame(blockMesh(20, 60, 10), 30)
    const [sin, cos] = [0.5, Math.sqrt(0.75)]
    // Points 4 mm above the belt, 12 mm along it and a millimetre of height farther, and where gantry and belt must stand for them.
    const n = 12 * sin + 4 * cos
    const z = n - belt.start / belt.slope
    const y = 4 * sin - 12 * cos
    const out = new ToolpathBuilder()
    out.startAt(0, 0, 0)
    for (const up of [0, 1]) {
      out.startLayer()
      out.rise(z + up)
      out.moveTo(1, y - 2)
      out.layTo(1, y, code.topBottom, 0.1, 0.4)
    }
    const turned = toBeltAxes(out.finish(), belt)
    const last = turned.y.length - 1
    expect(turned.y[3]).toBeCloseTo(4 / sin, 9)
    // A rise is the belt's alone.
    expect(turned.y[4]).toBe(turned.y[3])
    expect(turned.z[4]! - turned.z[3]!).toBeCloseTo(1 / sin, 9)
    expect(turned.y[3]! - turned.y[last]!).toBeCloseTo(belt.slope, 9)
  })

  it('takes copies side by side, or one behind the other without an end', async () => {
    const settings = settingsOf({ copies: 3, copyGap: 5, skirtLines: 0 }, setupOf('towline'))
    const size = [20, 60, 10] as const
    const { belt } = toBeltFrame(blockMesh(...size), 45)
    const together = copyPlaces(size, settings, belt)
    expect(together).toEqual([
      [-25, 0],
      [0, 0],
      [25, 0],
    ])
    const behind = copyPlaces(size, { ...settings, copyOrder: 'oneAtATime' }, belt)
    expect(behind.map(([x]) => x)).toEqual([0, 0, 0])
    // Over the belt by 45°, a part of 10 mm leans as far ahead.
    expect(behind[1]![1] - behind[0]![1]).toBeCloseTo(60 + 10 + 5, 9)
  })
})
