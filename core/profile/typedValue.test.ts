import { describe, expect, it } from 'vitest'
import type { SettingName } from './settings'
import { inOwnUnit, thicknessOf } from './typedValue'

const with04 = (name: SettingName): number => ({ lineWidth: 0.4, layerHeight: 0.2 })[name as 'lineWidth'] ?? Number.NaN

describe('values typed with a unit', () => {
  it('turn a wall thickness into a count: 1.2 ÷ 0.4 = 3, 1.6 ÷ 0.4 = 4 (CP-N8, common practice)', () => {
    expect(inOwnUnit('wallCount', '1.2 mm', with04)).toBe('3')
    expect(inOwnUnit('wallCount', '1,6mm', with04)).toBe('4')
    expect(thicknessOf('wallCount', 3, with04)).toBeCloseTo(1.2, 12)
    // Two walls of a 0.4 mm bore are one of a 0.8 mm bore.
    expect(inOwnUnit('wallCount', '0.8 mm', () => 0.8)).toBe('1')
  })

  it('never make a top or bottom thinner than asked', () => {
    expect(inOwnUnit('topLayers', '0.8 mm', with04)).toBe('4')
    expect(inOwnUnit('topLayers', '0.9 mm', with04)).toBe('5')
    expect(thicknessOf('bottomLayers', 4, with04)).toBeCloseTo(0.8, 12)
  })

  it('convert speeds and times, and drop a unit that is the setting’s own', () => {
    expect(inOwnUnit('outerWallSpeed', '3000 mm/min', with04)).toBe('50')
    expect(inOwnUnit('minLayerTime', '1 min', with04)).toBe('60')
    expect(inOwnUnit('layerHeight', '0,2 mm', with04)).toBe('0,2')
    expect(inOwnUnit('acceleration', '1500 mm/s²', with04)).toBe('1500')
  })

  it('leave everything else for the setting to judge', () => {
    for (const [name, text] of [
      ['layerHeight', '0.2'],
      ['layerHeight', '5 s'],
      ['wallCount', 'three'],
      ['infillPattern', 'grid'],
    ] as const)
      expect(inOwnUnit(name, text, with04)).toBe(text)
    expect(thicknessOf('layerHeight', 1, with04)).toBeUndefined()
  })
})
