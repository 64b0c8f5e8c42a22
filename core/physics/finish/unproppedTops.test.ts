import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../../profile/settings'
import { testKernel } from '../../testing/kernel'
import { layOut } from '../../testing/layOut'
import { blockMesh } from '../../testing/solids'
import { unproppedTops } from './unproppedTops'

const tops = async (values: SettingValues) => {
  const { layers, regions, path, settings } = await layOut(blockMesh(14, 14, 6), { infillPattern: 'lines', ...values })
  return unproppedTops(layers, regions, path, settings.lineWidth, await testKernel)
}

describe('tops without a line under them', () => {
  it('are found where sparse infill passes a small part by, and gone when the pattern is shifted under them (CP-K5, common practice)', async () => {
    // Lines 40 mm apart miss a part of 14 mm when its middle lies between two of them, and hit it when they are moved.
    const [missed] = await tops({ infillDensity: 1, infillAngle: 0 })
    expect(missed!.areaMm2).toBeGreaterThan(50)
    expect(missed!.at[2]).toBeCloseTo(5.4, 6)
    expect(await tops({ infillDensity: 1, infillAngle: 0, infillShiftX: 20, infillShiftY: 20 })).toEqual([])
  })

  it('are none where infill is as dense as usual', async () => expect(await tops({ infillDensity: 15 })).toEqual([]))
})
