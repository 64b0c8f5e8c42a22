import { noPurpose, type Purpose } from '@sable/core/physics/strength/purpose'
import { loadCases } from '@sable/core/physics/strength/strengthFigures'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { LoadMap } from '@sable/core/views/loadMap'
import { describe, expect, it } from 'vitest'
import { bearingOf, freeBodyOf, stressRatios } from './bearing'

/** Ten sections of 10 mm along x; what each bears of a bend falls towards the middle. */
const loads = Float64Array.of(Infinity, 90, 60, 40, 30, 40, 60, 90, 300, Infinity)
const section = {
  atMm: Float64Array.from({ length: 10 }, (_, i) => 5 + 10 * i),
  areaMm2: new Float64Array(10).fill(50),
  loadN: { pull: loads, bend: loads, bendHigh: loads, threePoint: loads, crush: loads },
}
const map: LoadMap = { own: [], axes: { x: section, y: section, z: section }, corners: new Float32Array(9) }
const strength = Object.fromEntries(
  loadCases.map((name) => [
    name,
    { loadN: name.endsWith('X') ? 30 : 500, basis: 'assumed', weakestAtMm: 45, stiffnessNmm: 5, by: 'strength' },
  ]),
)
const prediction = { strength } as unknown as Prediction
const purpose = (kind: Purpose['load']['kind'], axis: Purpose['load']['axis'] = 'weakest'): Purpose => ({
  ...noPurpose,
  load: { ...noPurpose.load, kind, axis },
})

describe('how a part bears its load', () => {
  it('is told along the axis that is stated, or along the weakest', () => {
    expect(bearingOf(prediction, map, purpose('bend'))).toMatchObject({ axis: 'x', from: 0, to: 100, low: 10, high: 90 })
    expect(bearingOf(prediction, map, purpose('bend', 'z')).load.loadN).toBe(500)
  })

  it('has a stress ratio of 1 where it fails, and none where it is held', () => {
    const ratios = stressRatios(bearingOf(prediction, map, purpose('bend')))
    expect(ratios[4]).toBe(1)
    expect(ratios[2]).toBeCloseTo(0.5)
    expect(ratios[0]).toBeNaN()
    expect(Math.max(...[...ratios].filter(Number.isFinite))).toBe(1)
  })

  it.each(['bend', 'bendHigh', 'threePoint', 'pull', 'crush'] as const)('freed of its part, %s is in balance', (kind) => {
    const { forces, held, arm } = freeBodyOf(bearingOf(prediction, map, purpose(kind)))
    const across = forces.filter(({ way }) => way === 'across').reduce((sum, { share }) => sum + share, 0)
    const back = forces.filter(({ way }) => way === 'back').reduce((sum, { share }) => sum + share, 0)
    if (kind === 'threePoint') {
      expect(across).toBe(back)
      // Moments about the left rest vanish.
      expect(forces.reduce((sum, { at, way, share }) => sum + (way === 'across' ? 1 : -1) * share * (at - held[0]!.at), 0)).toBeCloseTo(
        0,
        12,
      )
    } else {
      expect(held).toHaveLength(1)
      expect(held[0]!.how).toBe('clamped')
      expect(arm).toBeCloseTo(kind === 'bend' || kind === 'bendHigh' ? 0.8 : 0, 12)
    }
  })
})
