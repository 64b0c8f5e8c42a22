import { describe, expect, it } from 'vitest'
import { purposeChecks } from '../checks/safetyChecks'
import { asModelled } from '../mesh/place'
import { predict } from '../pipeline/predict'
import { type SettingValues, settingValuesSchema } from '../profile/settings'
import { resolveSettings, type Setup } from '../setup/resolve'
import { isFilled } from '../shelf/material'
import { starterMaterials } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { type ChosenSchools, schoolDefaults, schoolIds, schools, sideOf } from './schools'

const following = (chosen: ChosenSchools, material = 'pla', more: Partial<Setup> = {}): Setup => {
  const own = setupOf('lugger', 'bore-0.4', material)
  return { ...own, printer: { ...own.printer, schools: chosen }, ...more }
}
const settled = (chosen: ChosenSchools, material?: string, values: SettingValues = {}) =>
  resolveSettings(following(chosen, material), values)

describe('schools', () => {
  it('have sides of different names, and ask for nothing that cannot be set', () => {
    for (const id of schoolIds) {
      const { sides } = schools[id]
      expect(new Set(sides.map((side) => side.id)).size, id).toBe(sides.length)
      for (const side of sides)
        for (const material of starterMaterials)
          expect(
            settingValuesSchema.safeParse(side.defaults?.({ ...material, isFilled: isFilled(material) }) ?? {}).success,
            `${id} ${side.id}`,
          ).toBe(true)
    }
  })

  it('that were not chosen change nothing: figures are as without any', () => {
    for (const { key } of starterMaterials) expect(settled({}, key)).toEqual(resolveSettings(setupOf('lugger', 'bore-0.4', key), {}))
    expect(schoolDefaults({ S1: 'a side that is no more' }, { family: 'PLA', isFilled: false, nozzleRange: [190, 220] })).toEqual({})
    expect(sideOf('S1', { S1: 'nonsense' }).id).toBe('full')
  })

  it('that were chosen are defaults, say so, and give way to reel and profile', () => {
    const { settings, origins } = settled({ S1: 'little' })
    // Nearly off, 5 to 10 %, but over air (S1, common practice).
    expect(settings.fanSpeed).toBeLessThanOrEqual(10)
    expect(settings.overhangFan50).toBe(100)
    expect(origins.fanSpeed).toBe('school')
    expect(settled({ S1: 'little' }, 'petg').origins.fanSpeed).not.toBe('school')
    expect(settled({ S1: 'little' }, 'pla', { fanSpeed: 60 }).settings.fanSpeed).toBe(60)
    const reel = { key: 'r', name: 'R', material: 'pla', netG: 1000, weighings: [], dried: [], defaults: { fanSpeed: 30 } }
    expect(resolveSettings(following({ S1: 'little' }, 'pla', { spool: reel }), {}).settings.fanSpeed).toBe(30)
    expect(settled({ S2: 'neverFilled' }, 'wood-pla').settings.minLayerTime).toBe(0)
    expect(settled({ S2: 'neverFilled' }, 'pla').origins.minLayerTime).not.toBe('school')
    expect(settled({ S5: 'never', S6: 'always' }).settings).toMatchObject({ lift: 'never', brim: 'outer' })
  })

  it('hotter whenever faster carries more flow (S3: ten degrees bring a third, CP-F6, common practice)', () => {
    const [middle, hotter] = [settled({}).settings, settled({ S3: 'hotter' }).settings]
    expect(hotter.nozzleTemperature).toBeGreaterThan(middle.nozzleTemperature)
    expect(hotter.flowLimit).toBeGreaterThan(middle.flowLimit)
  })
})

describe('checks', () => {
  const checksOf = async (chosen: ChosenSchools, values: SettingValues, mesh = blockMesh(6, 6, 60)) =>
    predict(partOf('tower', mesh), asModelled, following(chosen), values, { kernel: await testKernel }).checks
  const smallFoot = async (chosen: ChosenSchools) =>
    (await checksOf(chosen, { brim: 'none', firstLayerSpeed: 30 })).find(({ id }) => id === 'small-foot')!

  it('offer both sides where none was chosen, and only one’s own where one was, saying whose', async () => {
    const open = await smallFoot({})
    expect([open.fix?.values, open.otherFix?.values]).toEqual([{ brim: 'outer' }, { firstLayerSpeed: 15 }])
    const never = await smallFoot({ S6: 'never' })
    expect([never.fix?.values, never.otherFix]).toEqual([{ firstLayerSpeed: 15 }, undefined])
    expect(never.school).toContain('You follow: never (S6)')
    const always = await smallFoot({ S6: 'always' })
    expect([always.fix?.values, always.otherFix]).toEqual([{ brim: 'outer' }, undefined])
  })

  it('never touch food where that is one’s side', () => {
    const food = (chosen?: ChosenSchools) =>
      purposeChecks({ kind: 'work', touchesFood: true }, chosen).find(({ id }) => id === 'food-contact')!
    expect(food().severity).toBe('caution')
    expect(food({ S12: 'never' })).toMatchObject({ severity: 'stop', school: expect.stringContaining('You follow: never') })
  })
})
