import { describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { asModelled } from '../../mesh/place'
import { predict } from '../../pipeline/predict'
import type { SettingValues } from '../../profile/settings'
import { testKernel } from '../../testing/kernel'
import { settingsOf, setupOf } from '../../testing/setups'
import { meshOf, partOf, solids } from '../../testing/solids'
import { topClosure } from './topClosure'

describe('a top over infill', () => {
  const of = (values: SettingValues) => topClosure(settingsOf({ lineWidth: 0.4, layerHeight: 0.2, ...values }), medians.finish)

  it('bridges the way between the lines: w·(100/density − 1) for one family, twice as far for two', () => {
    expect(of({ infillPattern: 'lines', infillDensity: 20 }).gapMm).toBeCloseTo(0.4 * 4, 9)
    expect(of({ infillPattern: 'grid', infillDensity: 20 }).gapMm).toBeCloseTo(0.4 * 9, 9)
    expect(of({ infillDensity: 100, infillPattern: 'lines' }).closure).toBe(Infinity)
    expect(of({ infillDensity: 0 }).closure).toBe(0)
  })

  it('closes with enough layers, thick enough, over infill that is dense enough (CP-S6, common practice)', () => {
    expect(of({ topLayers: 4, infillDensity: 15, infillPattern: 'grid' }).closure).toBeGreaterThan(1)
    expect(of({ topLayers: 2, infillDensity: 8, infillPattern: 'grid' }).closure).toBeLessThan(1)
    expect(of({ topLayers: 5 }).closure).toBeGreaterThan(of({ topLayers: 3 }).closure)
    expect(of({ infillDensity: 25 }).closure).toBeGreaterThan(of({ infillDensity: 10 }).closure)
    expect(of({ topLayers: 4, layerHeight: 0.1 }).closure).toBeCloseTo(of({ topLayers: 2, layerHeight: 0.2 }).closure, 9)
  })

  it('spans no more than the cavity is wide: a tyre with 16 mm inside is not told to bridge 39.6 mm', async () => {
    const { CrossSection } = await solids
    const tyre = meshOf(CrossSection.square([18.4, 12], true).translate([40, 6]).revolve(96))
    const { topClosure } = predict(
      partOf('tyre', tyre),
      asModelled,
      setupOf(),
      { infillDensity: 2, infillPattern: 'grid' },
      { kernel: await testKernel },
    )
    expect(topClosure.gapMm).toBeGreaterThan(14)
    expect(topClosure.gapMm).toBeLessThan(18)
    const hollow = predict(partOf('tyre', tyre), asModelled, setupOf(), { infillDensity: 0 }, { kernel: await testKernel })
    expect(hollow.topClosure.gapMm).toBe(topClosure.gapMm)
    expect(hollow.unproppedTops).toEqual([])
  })
})
