import { describe, expect, it } from 'vitest'
import type { SettingValues } from '../profile/settings'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'
import { setupOf } from '../testing/setups'
import { carriedValues, carry } from './carry'
import { resolveSettings } from './resolve'

const everyday: SettingValues = {
  layerHeight: 0.2,
  wallCount: 3,
  topLayers: 4,
  infillDensity: 15,
  outerWallSpeed: 60,
  innerWallSpeed: 90,
  infillSpeed: 120,
}
const told = (values: SettingValues, ...[printer, nozzle, material]: Parameters<typeof setupOf>) =>
  Object.fromEntries(carry(values, setupOf(), setupOf(printer, nozzle, material)).map((one) => [one.name, one]))

describe('a profile that is carried to another material', () => {
  it('slows to the pace of a flexible one (CP-M4, common practice: 15 first, 20 after) and keeps what rests on nothing of it', () => {
    const changes = told(everyday, 'lugger', 'bore-0.4', 'flexible')
    expect(changes.outerWallSpeed!.to).toBeGreaterThanOrEqual(10)
    expect(changes.infillSpeed!.to).toBeLessThanOrEqual(40)
    expect(changes.infillSpeed!.why).toContain('Flexible is laid at 20 mm/s')
    for (const name of ['layerHeight', 'wallCount', 'infillDensity']) expect(changes[name], name).toBeUndefined()
  })

  it('lets go of what was found for the other one', () => {
    const changes = told({ ...everyday, nozzleTemperature: 205, fanSpeed: 100, retractLength: 0.6 }, 'lugger', 'bore-0.4', 'petg')
    expect(changes.nozzleTemperature).toMatchObject({ from: 205, to: undefined, comesTo: 240 })
    // 20 % from layer 2 (CP-M3, common practice).
    expect(changes.fanSpeed!.comesTo).toBeLessThan(50)
    expect(changes.nozzleTemperature!.why).toContain('found by trials for PLA')
  })

  it('gives up the least layer time of wood, which clogs when it is slowed (S2, CP-M5, common practice)', () => {
    expect(told({ ...everyday, minLayerTime: 8 }, 'lugger', 'bore-0.6', 'wood-pla').minLayerTime).toMatchObject({ to: 0 })
    expect(told({ ...everyday, minLayerTime: 8 }, 'lugger', 'bore-0.4', 'petg').minLayerTime).toBeUndefined()
  })

  it('to itself changes nothing', () => {
    expect(carry(everyday, setupOf(), setupOf())).toEqual([])
  })
})

describe('a profile that is carried to another bore', () => {
  it('keeps the thickness of walls, tops and bottoms: 1.2 mm are 3 lines of 0.4 and 2 of 0.6 (CP-N8, common practice)', () => {
    const changes = told(everyday, 'lugger', 'bore-0.6', 'pla')
    expect(changes.wallCount!.to).toBe(2)
    expect(changes.layerHeight!.to).toBe(0.3)
    expect(changes.topLayers!.to).toBe(3)
  })

  it('never asks for layers thicker than the bore can lay (CP-N3, common practice)', () => {
    expect(told({ layerHeight: 0.35 }, 'lugger', 'bore-0.25', 'pla').layerHeight!.to).toBeLessThanOrEqual(0.19)
  })

  it('is slower at a wide line where the hot end melts no more than before (CP-F5, common practice)', () => {
    const changes = told({ ...everyday, infillSpeed: 60 }, 'dory', 'bore-0.8', 'pla')
    expect(changes.infillSpeed!.to).toBeLessThan(60)
    expect(changes.infillSpeed!.why).toMatch(/mm³\/s hold a 0\.4 × 0\.8 mm line to \d+ mm\/s/)
  })
})

describe('on every starter printer, with every bore and material', () => {
  it('asks for no more flow than there is, no value out of its range, and carries twice to what it carried to once', () => {
    for (const { key: printer } of starterPrinters)
      for (const { key: nozzle } of starterNozzles)
        for (const { key: material } of starterMaterials) {
          const after = setupOf(printer, nozzle, material)
          const values = carriedValues(everyday, carry(everyday, setupOf(), after))
          const { settings } = resolveSettings(after, values)
          const { layerHeight, lineWidth, flowLimit } = settings
          const where = `${printer} ${nozzle} ${material}`
          for (const name of ['outerWallSpeed', 'innerWallSpeed', 'infillSpeed'] as const)
            expect(settings[name] * layerHeight * lineWidth, where).toBeLessThan(flowLimit * 1.2)
          expect(layerHeight, where).toBeLessThanOrEqual(0.76 * after.nozzle.bore)
          expect(carry(values, after, after), where).toEqual([])
        }
  })
})
