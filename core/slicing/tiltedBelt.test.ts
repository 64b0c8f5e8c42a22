import { describe, expect, it } from 'vitest'
import { measureVolume } from '../mesh/measure'
import { planMotion } from '../motion/planMotion'
import { type Exception, Scopes } from '../profile/exceptions'
import type { SettingValues } from '../profile/settings'
import { findRegions } from '../regions/findRegions'
import { testKernel } from '../testing/kernel'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh } from '../testing/solids'
import { layPaths } from '../toolpath/layPaths'
import { slice } from './slice'
import { toBeltFrame } from './tiltedBelt'

async function timeOnBelt(length: number, values: SettingValues, exceptions: readonly Exception[]): Promise<number> {
  const kernel = await testKernel
  const setup = setupOf('towline')
  const settings = settingsOf({ minLayerTime: 0, skirtLines: 0, ...values }, setup)
  const scopes = new Scopes(settings, exceptions)
  const { mesh, beltStart, beltSlope } = toBeltFrame(blockMesh(20, length, 15), 45)
  const layers = { ...slice(mesh, () => settings, kernel), beltStart, beltSlope }
  const path = layPaths(layers, findRegions(layers, new Scopes(settings), 0.4, kernel), scopes, kernel)
  return planMotion(path, (scope) => scopes.settingsOf(scope), setup.printer).layerTime.reduce((sum, time) => sum + time, 0)
}

describe('a tilted belt', () => {
  it('turns the part without bending or mirroring it', () => {
    const { mesh } = toBeltFrame(blockMesh(20, 60, 10), 45)
    expect(measureVolume(mesh)).toBeCloseTo(20 * 60 * 10, 6)
  })

  it.each([30, 45, 60])('at %i° lays every layer from the belt on', async (angle) => {
    const { mesh, beltStart, beltSlope } = toBeltFrame(blockMesh(20, 60, 10), angle)
    const { outlines, top, height } = slice(mesh, () => settingsOf(), await testKernel)
    // Those that cut the far end of the part begin above the belt; every other begins on it.
    let touching = 0
    for (let layer = 0; layer < top.length; layer++) {
      const belt = beltStart + beltSlope * (top[layer]! - height[layer]! / 2)
      let nearest = Infinity
      for (let i = outlines.polygonStart[outlines.groupStart[layer]!]!; i < outlines.polygonStart[outlines.groupStart[layer + 1]!]!; i++)
        nearest = Math.min(nearest, outlines.xy[2 * i + 1]! - belt)
      expect(nearest).toBeGreaterThan(-1e-3)
      if (nearest < 1e-3) touching++
    }
    const onBelt = 60 * Math.sin((angle * Math.PI) / 180)
    expect(touching * 0.2).toBeGreaterThan(0.97 * onBelt)
  })

  it('needs the slow outer wall near the belt only: a beam is done in a good deal less time (CP-B1, common practice)', async () => {
    const values = { outerWallSpeed: 80, innerWallSpeed: 80, infillSpeed: 100, skinSpeed: 80, firstLayerSpeed: 20, slowFirstLayers: 10 }
    const allSlow = await timeOnBelt(80, { ...values, outerWallSpeed: 20 }, [])
    const nearBelt = await timeOnBelt(80, values, [{ name: 'near the belt', fromZ: 0, nearBelt: 0.5, values: { outerWallSpeed: 20 } }])
    expect(nearBelt).toBeLessThan(0.8 * allSlow)
    expect(nearBelt).toBeGreaterThan(await timeOnBelt(80, values, []))
  })
})
