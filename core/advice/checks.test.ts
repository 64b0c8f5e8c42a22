import { describe, expect, it } from 'vitest'
import { limiters } from '../motion/limiters'
import { timeRows } from '../motion/timeFigures'
import { resolveSettings } from '../profile/resolve'
import type { SettingValues } from '../profile/settings'
import { setupOf } from '../testing/setups'
import { laidFeatures } from '../toolpath/toolpath'
import { type Evidence, runChecks } from './checks'

const calm = { speedMmS: 40, limiter: 'asked' } as const

function evidence(values: SettingValues = {}, setup = setupOf(), change: Partial<Evidence> = {}): Evidence {
  return {
    setup,
    resolved: resolveSettings(setup, values),
    sizeMm: [50, 50, 50],
    mesh: { watertight: true },
    time: {
      timeS: 600,
      timeByFeatureS: Object.fromEntries(timeRows.map((row) => [row, 60])) as Evidence['time']['timeByFeatureS'],
      limiters: Object.fromEntries(limiters.map((limiter) => [limiter, 0])) as Evidence['time']['limiters'],
      realSpeeds: Object.fromEntries([...laidFeatures, 'travel'].map((feature) => [feature, calm])) as Evidence['time']['realSpeeds'],
      layersTooFast: 0,
      layersSlowed: 0,
    },
    laidVolumeMm3: 5000,
    layerCount: 250,
    layersWithLostPieces: 0,
    lostMm2: 0,
    unheldMm2: 0,
    unproppedTops: [],
    melt: {
      failsAt: 20,
      basis: 'assumed',
      load95: 0.4,
      highest: 0.6,
      highestAtZMm: 10,
      missing: 0,
      layersShort: 0,
      failsAtPlus: [22, 25],
    },
    cooling: { margin: 2, atZMm: 40, neededS: 5, takesS: 10, layersWarm: 0, tipsWarm: 0, droopMm: 0 },
    gloss: { mean: 0.6, spread: 0.1, bandAtZMm: 12, band: 0.05 },
    sway: { topMm: 0.001 },
    supportSway: { mostMm: 0, atZMm: 0 },
    topClosure: { gapMm: 5, thicknessMm: 0.8, closure: 1.1 },
    strings: { openM: 0, pulledM: 0.4, index: 0.02 },
    ...change,
  }
}

const ids = (given: Evidence): string[] => runChecks(given).map(({ id }) => id)

describe('checks', () => {
  it('are silent about an ordinary print', () => expect(ids(evidence())).toEqual([]))

  // Each row: the check, evidence on which it must speak, evidence near by on which it must not.
  it.each<[string, Evidence, Evidence]>([
    ['larger-than-printer', evidence({}, setupOf(), { sizeMm: [251, 10, 10] }), evidence({}, setupOf(), { sizeMm: [250, 10, 10] })],
    ['nothing-laid', evidence({}, setupOf(), { laidVolumeMm3: 0 }), evidence()],
    ['thinner-than-a-line', evidence({}, setupOf(), { layersWithLostPieces: 2 }), evidence()],
    ['detail-lost', evidence({}, setupOf(), { lostMm2: 100 }), evidence({}, setupOf(), { lostMm2: 20 })],
    ['top-without-infill', evidence({}, setupOf(), { unproppedTops: [{ at: [1, 2, 3], areaMm2: 60 }] }), evidence()],
    ['overhang-unheld', evidence({}, setupOf(), { unheldMm2: 30 }), evidence()],
    ['copies-do-not-fit', evidence({ copies: 30 }), evidence({ copies: 4 })],
    [
      'head-hits-copy',
      evidence({ copies: 2, copyOrder: 'oneAtATime', copyGap: 10 }),
      evidence({ copies: 2, copyOrder: 'oneAtATime', copyGap: 40 }),
    ],
    ['hot-end-too-hot', evidence({ nozzleTemperature: 260 }, setupOf('dory')), evidence({ nozzleTemperature: 255 }, setupOf('dory'))],
    ['nozzleTemperature-outside-label', evidence({ nozzleTemperature: 221 }), evidence({ nozzleTemperature: 220 })],
    ['bedTemperature-outside-label', evidence({ bedTemperature: 40 }), evidence({ bedTemperature: 50 })],
    // CP-N3, common practice: about 0.35 mm is the most from a 0.4 mm bore.
    ['layer-high-for-bore', evidence({ layerHeight: 0.36 }), evidence({ layerHeight: 0.35 })],
    ['layer-time-short', evidence({}, setupOf(), { time: { ...evidence().time, layersTooFast: 3 } }), evidence()],
    // CP-R4, common practice: no more than about 30 mm/s.
    ['push-back-fast', evidence({ pushBackSpeed: 40 }), evidence({ pushBackSpeed: 30 })],
    ['retraction-beyond-firmware', evidence({ retractSpeed: 60 }, setupOf('dory')), evidence({ retractSpeed: 50 }, setupOf('dory'))],
    ['mesh-open', evidence({}, setupOf(), { mesh: { watertight: false } }), evidence()],
    ['fumes', evidence({}, setupOf('cutter', 'bore-0.4', 'abs')), evidence({}, setupOf('cutter', 'bore-0.4', 'petg'))],
  ])('%s speaks where it must and only there', (id, speaks, silent) => {
    expect(ids(speaks)).toContain(id)
    expect(ids(silent)).not.toContain(id)
  })

  it('name asked and real speed and what holds it', () => {
    const held = evidence({ infillSpeed: 300 }, setupOf(), {
      time: { ...evidence().time, realSpeeds: { ...evidence().time.realSpeeds, infill: { speedMmS: 150, limiter: 'flow' } } },
    })
    expect(runChecks(held)).toEqual([
      expect.objectContaining({
        id: 'held-back-infill',
        setting: 'infillSpeed',
        message: expect.stringMatching(/asked 300, gets 150 mm\/s\. The flow limit/),
      }),
    ])
  })

  it('put the gravest first', () => {
    const many = runChecks(evidence({ pushBackSpeed: 60, bedTemperature: 30 }, setupOf(), { sizeMm: [999, 1, 1] }))
    expect(many.map(({ severity }) => severity)).toEqual(['stop', 'caution', 'note'])
  })

  it('tell what the physics foresees, with its numbers and what to do', () => {
    const calm = evidence()
    const foreseen: readonly (readonly [id: string, change: Partial<Evidence>, says: RegExp])[] = [
      ['plastic-missing', { melt: { ...calm.melt, layersShort: 6, highest: 1.05 } }, /6 layers ask.*105 %.*10 °C more would carry 25/],
      ['tips-soft', { cooling: { ...calm.cooling, tipsWarm: 1, takesS: 2 } }, /takes 2\.0 s and needs 5\.0 s/],
      ['layers-soft', { cooling: { ...calm.cooling, layersWarm: 12, takesS: 3 } }, /12 of 250 layers.*3\.0 s of the 5\.0 s/],
      ['overhang-droops', { cooling: { ...calm.cooling, droopMm: 80 } }, /80 mm of line/],
      ['gloss-band', { gloss: { ...calm.gloss, band: 0.5 } }, /z 12\.0 mm/],
      ['part-sways', { sway: { topMm: 0.4, slowAboveZMm: 60 } }, /From z 60 mm.*0\.40 mm/],
      ['support-sways', { supportSway: { mostMm: 2.4, atZMm: 90 } }, /2\.4 mm at z 90 mm.*15 to 35 mm/],
      ['top-stays-open', { topClosure: { gapMm: 9, thicknessMm: 0.4, closure: 0.4 } }, /0\.40 mm thick.*9\.0 mm/],
      ['strings', { strings: { openM: 2, pulledM: 1, index: 2 } }, /2\.0 m over open air/],
    ]
    for (const [id, change, says] of foreseen) {
      const found = runChecks(evidence({}, setupOf(), change)).filter((check) => check.id === id)
      expect(found, id).toHaveLength(1)
      expect(found[0]!.message).toMatch(says)
    }
  })
})
