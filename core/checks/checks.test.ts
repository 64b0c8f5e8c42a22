import { describe, expect, it } from 'vitest'
import { limiters } from '../motion/limiters'
import { timeRows } from '../motion/timeFigures'
import { noPurpose } from '../physics/strength/purpose'
import { parseValue, type SettingName, type SettingValues, settingNames } from '../profile/settings'
import { resolveSettings, type Setup } from '../setup/resolve'
import type { Nozzle } from '../shelf/nozzle'
import type { Printer } from '../shelf/printer'
import type { Remaining, SpoolStock } from '../shelf/spool'
import { setupOf } from '../testing/setups'
import { laidFeatures } from '../toolpath/toolpath'
import { askedHeats } from './askedHeats'
import { type Evidence, fixWords, severities } from './check'
import { allRules, runChecks } from './runChecks'
import { purposeChecks } from './safetyChecks'

const calmSway: Evidence['sway'] = {
  mostMm: 0.001,
  atZMm: 10,
  footMargin: 20,
  isSlender: false,
  worst: { speedMmS: 50, timeS: 10, forceN: 0.5 },
}
const calm = { speedMmS: 40, limiter: 'asked' } as const
const time: Evidence['time'] = {
  timeS: 1800,
  unslowedS: 1800,
  timeByFeatureS: Object.fromEntries(timeRows.map((row) => [row, 60])) as Evidence['time']['timeByFeatureS'],
  limiters: Object.fromEntries(limiters.map((limiter) => [limiter, 0])) as Evidence['time']['limiters'],
  realSpeeds: Object.fromEntries([...laidFeatures, 'travel'].map((feature) => [feature, calm])) as Evidence['time']['realSpeeds'],
  layersTooFast: 0,
  layersSlowed: 0,
}
const melt: Evidence['melt'] = {
  failsAt: 25,
  basis: 'assumed',
  load95: 0.4,
  highest: 0.6,
  highestAtZMm: 10,
  missing: 0,
  layersShort: 0,
  failsAtPlus: [27, 29],
}
const noVessel: Evidence['vessel'] = {
  isVessel: false,
  open: { areaMm2: 0, atZMm: 0 },
  leansIn: { mm: 0, atZMm: 0 },
  leansOut: { mm: 0, atZMm: 0 },
}
const cooling: Evidence['cooling'] = { margin: 2, atZMm: 40, neededS: 5, takesS: 10, layersWarm: 0, tipsWarm: 0, droopMm: 0 }

/** An ordinary print, but for what is said otherwise. */
function evidence(values: SettingValues = {}, setup = setupOf(), change: Partial<Evidence> = {}): Evidence {
  return {
    setup,
    resolved: resolveSettings(setup, values),
    heats: askedHeats(resolveSettings(setup, values).settings, []),
    overridden: new Set(),
    sizeMm: [50, 50, 50],
    mesh: { watertight: true },
    time,
    massG: 20,
    laidVolumeMm3: 5000,
    layerCount: 250,
    footMm2: 2500,
    lost: { layersWithLostPieces: 0, areaMm2: 0 },
    vessel: noVessel,
    unheldMm2: 0,
    afloat: [],
    overAirMm: 0,
    longestBridgeMm: 0,
    unproppedTops: [],
    pictures: [],
    placesOff: [],
    melt,
    cooling,
    bond: { mean: 0.6, worst: 0.5, worstAtZMm: 3 },
    gloss: { mean: 0.6, spread: 0.1, bandAtZMm: 12, band: 0.05 },
    ringing: { amplitudeMm: 0.01, wavelengthMm: 1, measured: false },
    sway: calmSway,
    supportSway: { mostMm: 0, atZMm: 0, forceN: 0 },
    fit: { shrinkMm: 0.1, shrinkShare: 0.002, flareMm: 0.1, worstMm: 0.1, worst: 'foot' },
    warp: { risk: 0.3, strain: 0.002, contactMm: 70, airC: 22 },
    sag: { droopMm: 0, hanging: 0, bridgeMm: 0, spanMm: 0 },
    topClosure: { gapMm: 5, thicknessMm: 0.8, closure: 1.1 },
    strings: { openM: 0, pulledM: 0.4, expected: 2 },
    ...change,
  }
}
const seeing = (change: Partial<Evidence>, values: SettingValues = {}, setup = setupOf()): Evidence => evidence(values, setup, change)
const on = (printer: Partial<Printer>, setup = setupOf()): Setup => ({ ...setup, printer: { ...setup.printer, ...printer } })
const through = (nozzle: Partial<Nozzle>, setup = setupOf()): Setup => ({ ...setup, nozzle: { ...setup.nozzle, ...nozzle } })
const weighed = (grams: number): Remaining => ({ grams, doubtG: 3, metres: grams / 3, from: 'weighed' })
const foundWith = (nozzle: string): Setup => {
  const setup = spooled({})
  return { ...setup, spool: { ...setup.spool!, foundWith: nozzle, defaults: { nozzleTemperature: 207 } } }
}
const spooled = (stock: Partial<SpoolStock>): Setup => ({
  ...setupOf(),
  spool: { key: 'a', name: 'Reel A', material: 'pla', netG: 1000, weighings: [], dried: [], defaults: {} },
  stock: { remaining: weighed(300), days: 4, wet: false, others: [], ...stock },
})
const ids = (given: Evidence): string[] => runChecks(given).map(({ id }) => id)

type Row = readonly [id: string, speaks: Evidence, silent: Evidence]

const shellTime = { ...time, timeS: 3000, timeByFeatureS: { ...time.timeByFeatureS, outerWall: 900, topBottom: 300 } }
const pictured: Evidence['pictures'][number] = { name: 'sign', contrastLeft: 0.9, heldBy: undefined, timeS: 60, addedS: 20 }
const vesselOf = (wallMm: number): Evidence['vessel'] => ({ ...noVessel, isVessel: true, wallMm })

/** Rules that look at settings and records: what they offer must settle them. */
const ofSettings: readonly Row[] = [
  [
    'outside-round-bed',
    evidence({}, on({ bedShape: 'round' }), { sizeMm: [200, 200, 9] }),
    evidence({}, setupOf(), { sizeMm: [200, 200, 9] }),
  ],
  ['copies-do-not-fit', evidence({ copies: 30 }), evidence({ copies: 4 })],
  [
    'head-hits-copy',
    evidence({ copies: 2, copyOrder: 'oneAtATime', copyGap: 10 }),
    evidence({ copies: 2, copyOrder: 'oneAtATime', copyGap: 40 }),
  ],
  ['small-foot', seeing({ footMm2: 25 }), seeing({ footMm2: 25 }, { brim: 'outer' })],
  ['nozzle-does-not-fit', evidence({}, through({ inlet: 2.85 })), evidence({}, through({ inlet: 1.75 }))],
  // CP-N3, common practice: about 0.35 mm is the most from a 0.4 mm bore, and 0.05 mm just managed.
  ['layer-high-for-bore', evidence({ layerHeight: 0.36 }), evidence({ layerHeight: 0.35 })],
  ['layer-thin-for-bore', evidence({ layerHeight: 0.04 }), evidence({ layerHeight: 0.05 })],
  // CP-N9, common practice: 0.6 mm from a 0.4 mm bore.
  ['line-wide-for-bore', evidence({ lineWidth: 0.65 }), evidence({ lineWidth: 0.6 })],
  ['line-narrow-for-bore', evidence({ lineWidth: 0.3 }), evidence({ lineWidth: 0.35 })],
  ['wide-lines-same-walls', evidence({ lineWidth: 0.6, wallCount: 3 }), evidence({ lineWidth: 0.6, wallCount: 2 })],
  // CP-N4, common practice.
  ['fibre-in-small-bore', evidence({}, setupOf('lugger', 'bore-0.4', 'wood-pla')), evidence({}, setupOf('lugger', 'bore-0.6', 'wood-pla'))],
  // CP-N5, common practice.
  [
    'abrasive-in-soft-nozzle',
    evidence({}, { ...setupOf(), material: { ...setupOf().material, abrasive: true } }),
    evidence({}, { ...setupOf('lugger', 'hard-0.4'), material: { ...setupOf().material, abrasive: true } }),
  ],
  ['nozzle-worn', evidence({}, through({ abrasiveGrams: 400 })), evidence({}, through({ abrasiveGrams: 100 }))],
  // CP-N1, common practice.
  ['bore-clogs', evidence({}, through({ bore: 0.2 })), evidence({}, setupOf('lugger', 'bore-0.25'))],
  ['core-stays-cold', evidence({}, through({ bore: 1.2 })), evidence({ nozzleTemperature: 255 }, through({ bore: 1.2 }))],
  // CP-N6, common practice.
  [
    'hard-steel-runs-cold',
    evidence({ nozzleTemperature: 205 }, setupOf('lugger', 'hard-0.4')),
    evidence({ nozzleTemperature: 215 }, setupOf('lugger', 'hard-0.4')),
  ],
  ['flow-limit-lifted', evidence({ flowLimit: 30 }), evidence({ flowLimit: 20 })],
  ['feed-beyond-extruder', evidence({ flowLimit: 30 }, on({ limits: { ...setupOf().printer.limits, extruderSpeed: 8 } })), evidence()],
  // CP-T1, common practice: about half the general speed.
  ['first-layer-fast', evidence({ firstLayerSpeed: 60 }), evidence({ firstLayerSpeed: 30 })],
  ['beyond-the-machine-acceleration', evidence({ acceleration: 9000 }), evidence({ acceleration: 3000 })],
  ['table-shakes', evidence({}, on({ table: 'shaky' })), evidence({}, on({ table: 'steady' }))],
  ['hot-end-too-hot', evidence({ nozzleTemperature: 260 }, setupOf('dory')), evidence({ nozzleTemperature: 255 }, setupOf('dory'))],
  ['outside-label-nozzleTemperature', evidence({ nozzleTemperature: 221 }), evidence({ nozzleTemperature: 220 })],
  ['outside-label-bedTemperature', evidence({ bedTemperature: 40 }), evidence({ bedTemperature: 50 })],
  ['lining-overheats', evidence({ nozzleTemperature: 250 }, setupOf('dory')), evidence({ nozzleTemperature: 250 })],
  // CP-M3 and CP-M6, common practice.
  [
    'fan-against-material',
    evidence({ fanSpeed: 80 }, setupOf('cutter', 'bore-0.4', 'abs')),
    evidence({ fanSpeed: 20 }, setupOf('cutter', 'bore-0.4', 'abs')),
  ],
  ['enclosure-wanted', evidence({}, setupOf('lugger', 'bore-0.4', 'abs')), evidence({}, setupOf('cutter', 'bore-0.4', 'abs'))],
  // CP-R4, common practice: no more than about 30 mm/s.
  ['push-back-fast', evidence({ pushBackSpeed: 40 }), evidence({ pushBackSpeed: 30 })],
  // CP-R5, common practice.
  ['retraction-beyond-firmware', evidence({ retractSpeed: 60 }, setupOf('dory')), evidence({ retractSpeed: 50 }, setupOf('dory'))],
  ['retraction-slow', evidence({ retractSpeed: 10 }), evidence({ retractSpeed: 30 })],
  // CP-M1, common practice: direct 0.4–0.8 mm, tube 3–6 mm.
  ['retraction-short-for-tube', evidence({ retractLength: 0.8 }, setupOf('dory')), evidence({ retractLength: 3 }, setupOf('dory'))],
  ['retraction-long-for-direct', evidence({ retractLength: 5 }), evidence({ retractLength: 0.8 })],
  // CP-M4, common practice: off or tiny, direct preferred.
  [
    'flexible-retraction',
    evidence({ retractLength: 3 }, setupOf('lugger', 'bore-0.4', 'flexible')),
    evidence({}, setupOf('lugger', 'bore-0.4', 'flexible')),
  ],
  ['flexible-through-tube', evidence({}, setupOf('dory', 'bore-0.4', 'flexible')), evidence({}, setupOf('lugger', 'bore-0.4', 'flexible'))],
  ['wipe-under-pull', evidence({ wipeLength: 8 }), evidence({ wipeLength: 2 })],
  ['coasting-long', evidence({ coastLength: 2 }), evidence({ coastLength: 0.3 })],
  ['pulls-too-often', evidence({ retractMinTravel: 0.2 }), evidence({ retractMinTravel: 1 })],
  // CP-S7, common practice: slow speed and strong cooling.
  ['bridge-fast', seeing({ longestBridgeMm: 20 }, { bridgeSpeed: 100 }), seeing({ longestBridgeMm: 20 })],
  ['bridge-uncooled', seeing({ longestBridgeMm: 20 }, { bridgeFan: 20 }), seeing({ longestBridgeMm: 20 })],
  // CP-P3, common practice: limit 60°, branches 50–55°.
  ['branches-lean-too-far', evidence({ supports: 'branching', branchLean: 60 }), evidence({ supports: 'branching', branchLean: 55 })],
  // CP-P2, common practice: 5–10 %; concentric wastes plastic.
  ['support-dense', evidence({ supports: 'plain', supportDensity: 25 }), evidence({ supports: 'plain', supportDensity: 10 })],
  [
    'support-concentric',
    evidence({ supports: 'plain', supportPattern: 'concentric' }),
    evidence({ supports: 'plain', supportPattern: 'grid' }),
  ],
  ['overhangs-without-supports', seeing({ overAirMm: 4000 }), seeing({ overAirMm: 4000 }, { supports: 'plain' })],
  // CP-K1, common practice.
  ['infill-beyond-use', evidence({ infillDensity: 50 }), evidence({ infillDensity: 100 })],
  ['wall-before-infill', evidence({ wallCount: 2, infillDensity: 30 }), evidence({ wallCount: 3, infillDensity: 30 })],
  // CP-K5, common practice.
  [
    'soft-part-stiff-top',
    evidence({ topLayers: 6 }, setupOf('lugger', 'bore-0.4', 'flexible')),
    evidence({ topLayers: 3 }, setupOf('lugger', 'bore-0.4', 'flexible')),
  ],
  ['infill-thicker-than-bore', evidence({ infillEvery: 3 }), evidence({ infillEvery: 3, layerHeight: 0.1 })],
  ['fumes', evidence({}, setupOf('cutter', 'bore-0.4', 'abs')), evidence({}, setupOf('cutter', 'bore-0.4', 'petg'))],
  ['filled-dust', evidence({}, setupOf('lugger', 'bore-0.6', 'wood-pla')), evidence()],
  [
    'over-tuned',
    seeing({ time: { ...time, timeS: 500 } }, Object.fromEntries(Object.entries(resolveSettings(setupOf(), {}).settings).slice(0, 30))),
    seeing({ time: { ...time, timeS: 500 } }, { wallCount: 2 }),
  ],
]

/** Rules that look at what was computed. */
const ofFigures: readonly Row[] = [
  ['larger-than-printer', seeing({ sizeMm: [251, 10, 10] }), seeing({ sizeMm: [250, 10, 10] })],
  ['nothing-laid', seeing({ laidVolumeMm3: 0 }), evidence()],
  ['thinner-than-a-line', seeing({ lost: { layersWithLostPieces: 2, areaMm2: 0 } }), evidence()],
  ['detail-lost', seeing({ lost: { layersWithLostPieces: 0, areaMm2: 100 } }), seeing({ lost: { layersWithLostPieces: 0, areaMm2: 20 } })],
  ['top-without-infill', seeing({ unproppedTops: [{ at: [1, 2, 3], areaMm2: 60 }] }), evidence()],
  ['mesh-open', seeing({ mesh: { watertight: false } }), evidence()],
  ['flow-pays-no-more', seeing({ time: { ...time, limiters: { ...time.limiters, flow: 0.7 } } }), evidence()],
  ['cool-for-the-pace', seeing({ melt: { ...melt, load95: 0.9 } }, { nozzleTemperature: 195 }), seeing({ melt: { ...melt, load95: 0.9 } })],
  [
    'filled-filament-slowed',
    seeing({ time: { ...time, layersSlowed: 9 } }, { floorSpeed: 10 }, setupOf('lugger', 'bore-0.6', 'wood-pla')),
    seeing({ time: { ...time, layersSlowed: 9 } }, {}, setupOf('lugger', 'bore-0.6', 'wood-pla')),
  ],
  ['layer-time-short', seeing({ time: { ...time, layersTooFast: 3 } }), evidence()],
  ['waves-behind-corners', seeing({ ringing: { amplitudeMm: 0.12, wavelengthMm: 2, measured: true } }), evidence()],
  ['little-fan-on-pla', seeing({ cooling: { ...cooling, layersWarm: 5 } }, { fanSpeed: 10 }), seeing({}, { fanSpeed: 10 })],
  ['begins-in-mid-air', seeing({ afloat: [{ zMm: 20, areaMm2: 100, aloneMm: 10 }] }), evidence()],
  ['overhang-unheld', seeing({ unheldMm2: 30 }, { supportFrom: 'bed' }), evidence()],
  ['bridge-long', seeing({ longestBridgeMm: 60 }), seeing({ longestBridgeMm: 20 })],
  [
    'petg-through-tube',
    seeing({ strings: { openM: 0.5, pulledM: 1, expected: 60 } }, {}, setupOf('dory', 'bore-0.4', 'petg')),
    seeing({ strings: { openM: 0.5, pulledM: 1, expected: 60 } }, {}, setupOf('lugger', 'bore-0.4', 'petg')),
  ],
  ['layers-come-apart', seeing({ bond: { mean: 0.5, worst: 0.2, worstAtZMm: 8 } }), evidence()],
  ['filament-short', seeing({ massG: 400 }, {}, spooled({})), seeing({ massG: 100 }, {}, spooled({}))],
  ['spool-likely-wet', seeing({}, {}, spooled({ wet: true, days: 90 })), seeing({}, {}, spooled({}))],
  [
    'spool-unweighed',
    seeing({ massG: 500 }, {}, spooled({ remaining: { ...weighed(1000), from: 'label' } })),
    seeing({ massG: 500 }, {}, spooled({ remaining: weighed(1000) })),
  ],
  [
    'spool-to-use-up',
    seeing({ massG: 30 }, {}, spooled({ others: [{ key: 'b', name: 'Reel B', material: 'pla', remaining: weighed(50) }] })),
    seeing({ massG: 60 }, {}, spooled({ others: [{ key: 'b', name: 'Reel B', material: 'pla', remaining: weighed(50) }] })),
  ],
  [
    'nozzle-length',
    evidence({}, through({ threadLength: 14 }, on({ hotEnd: { ...setupOf().printer.hotEnd, threadLength: 5.5 } }))),
    evidence({}, through({ threadLength: 6 }, on({ hotEnd: { ...setupOf().printer.hotEnd, threadLength: 5.5 } }))),
  ],
  ['tip-brittle', evidence({}, through({ body: 'diamondTip' })), evidence({}, through({ body: 'tungstenCarbide' }))],
  ['found-with-another-nozzle', seeing({}, {}, foundWith('bore-0.6')), seeing({}, {}, foundWith('bore-0.4'))],
  ['own-start-text', evidence({}, on({ startText: 'G28' })), evidence({}, on({ startText: 'M190 S{bed}\nM109 S{nozzle}\nG28' }))],
  ['own-end-text', evidence({}, on({ endText: 'M84' })), evidence({}, on({ endText: 'M104 S0\nM140 S0' }))],
  [
    'spiral-leaves-open',
    seeing({ vessel: { ...noVessel, isVessel: true, open: { areaMm2: 80, atZMm: 9 } } }, { spiralWall: 'on' }),
    seeing({ vessel: { ...noVessel, isVessel: true, open: { areaMm2: 80, atZMm: 9 } } }),
  ],
  [
    'spiral-leans-in',
    seeing({ vessel: { ...noVessel, isVessel: true, leansIn: { mm: 0.3, atZMm: 9 } } }, { spiralWall: 'on' }),
    seeing({ vessel: { ...noVessel, isVessel: true, leansIn: { mm: 0.15, atZMm: 9 } } }, { spiralWall: 'on' }),
  ],
  ['spiral-would-suit', seeing({ time: shellTime, vessel: vesselOf(0.9) }), seeing({ time: shellTime, vessel: vesselOf(3) })],
  ['place-off-part', seeing({ placesOff: ['rim'] }), seeing({ placesOff: [] })],
  ['picture-off-part', seeing({ pictures: [{ ...pictured, timeS: 0, contrastLeft: 0 }] }), seeing({ pictures: [pictured] })],
  [
    'picture-flattened',
    seeing({ pictures: [{ ...pictured, contrastLeft: 0.4 }] }),
    seeing({ pictures: [{ ...pictured, contrastLeft: 0.8 }] }),
  ],
  ['long-print', seeing({ time: { ...time, timeS: 12 * 3600 } }), evidence()],
]

const banded = { gloss: { mean: 0.6, spread: 0.1, bandAtZMm: 12, band: 0.5 } }

/** Rules whose numbers and advice are read word by word below. */
const inWords: readonly (readonly [id: string, change: Partial<Evidence>, says: RegExp])[] = [
  ['plastic-missing', { melt: { ...melt, layersShort: 6, highest: 1.05 } }, /6 layers ask.*105 %.*10 °C more would carry 29/],
  ['layers-soft', { cooling: { ...cooling, layersWarm: 162, margin: 0.38 } }, /sinks in/],
  ['tips-soft', { cooling: { ...cooling, tipsWarm: 1, takesS: 2 } }, /takes 2\.0 s and needs 5\.0 s/],
  ['layers-soft', { cooling: { ...cooling, layersWarm: 12, takesS: 3 } }, /12 of 250 layers.*3\.0 s of the 5\.0 s/],
  ['overhang-droops', { cooling: { ...cooling, droopMm: 80 } }, /80 mm of line/],
  ['gloss-band', { ...banded, time: { ...time, layersSlowed: 9 } }, /z 12\.0 mm.*Slow the outer wall last/],
  ['gloss-band', { ...banded, overridden: new Set(['outerWallSpeed'] as const) }, /An override changes its outer wall speed/],
  ['part-sways', { sway: { ...calmSway, mostMm: 0.2, slowAboveZMm: 60 } }, /From z 60 mm.*0\.20 mm/],
  [
    'part-sways',
    { sway: { ...calmSway, mostMm: 25, slowAboveZMm: 60, falls: { aboveZMm: 80, by: 'sway' } } },
    /From z 80 mm.*will not stand.*No speed settles/,
  ],
  ['corners-lift', { warp: { risk: 1.8, strain: 0.007, contactMm: 140, airC: 22 } }, /140 mm of foot.*1\.8 times.*enclosure/],
  ['part-comes-loose', { sway: { ...calmSway, falls: { aboveZMm: 80, by: 'foot' } } }, /From z 80 mm.*comes off the bed/],
  ['spiral-would-suit', { time: shellTime, vessel: vesselOf(0.9) }, /wall of 0\.9 mm.*no seam.*29 min/],
  ['picture-flattened', { pictures: [{ ...pictured, contrastLeft: 0.42, heldBy: 'flow' }] }, /“sign” 42 % is left.*cannot melt/],
  ['picture-flattened', { pictures: [{ ...pictured, contrastLeft: -0.1, heldBy: undefined }] }, / 0 % is left/],
  ['support-sways', { supportSway: { mostMm: 2.4, atZMm: 90, forceN: 0.5 } }, /2\.4 mm at z 90 mm.*15 to 35 mm/],
  ['top-stays-open', { topClosure: { gapMm: 9, thicknessMm: 0.4, closure: 0.4 } }, /0\.40 mm thick.*9\.0 mm/],
  ['strings', { strings: { openM: 2, pulledM: 1, expected: 80 } }, /2\.0 m over open air/],
  [
    'held-back-infill',
    { time: { ...time, realSpeeds: { ...time.realSpeeds, infill: { speedMmS: 50, limiter: 'flow' } } } },
    /asked 80, gets 50 mm\/s\. The flow limit/,
  ],
]

describe('advice', () => {
  it('of a rule where practitioners disagree offers both sides, or says nothing for either', () => {
    const seen = [...ofSettings, ...ofFigures].map(([id, speaks]) => [id, speaks] as const)
    const told = inWords.map(([id, change]) => [id, seeing(change)] as const)
    const sided = [...seen, ...told].flatMap(([id, speaks]) => {
      const rule = allRules.find((rule) => rule.id === id)
      const found = rule?.school === undefined ? undefined : [rule.find(speaks) ?? []].flat()
      return (found ?? []).map(({ fix, otherFix }) => [id, fix !== undefined, otherFix !== undefined] as const)
    })
    expect(sided.length).toBeGreaterThan(5)
    for (const [id, one, other] of sided) expect([id, other]).toEqual([id, one])
  })

  it('never asks for a higher and a lower floor speed at once: what clogs when it is slow keeps its floor (CP-M5, S2)', () => {
    const wood = setupOf('lugger', 'bore-0.6', 'wood-pla')
    const asked = (values: SettingValues) => runChecks(evidence(values, wood, { time: { ...time, layersSlowed: 9, layersTooFast: 4 } }))
    const message = (id: string, values: SettingValues = {}) => asked(values).find((check) => check.id === id)?.message
    expect(message('filled-filament-slowed', { floorSpeed: 10 })).toMatch(/Raise the floor speed/)
    expect(message('layer-time-short', { floorSpeed: 10 })).not.toMatch(/lower the floor/)
    expect(message('layer-time-short', { floorSpeed: 10 })).toMatch(/stays/)
  })

  it('is content with a first layer at half of the general speed, whichever feature is the fastest (CP-T1)', () => {
    const half = { firstLayerSpeed: 40, outerWallSpeed: 40, innerWallSpeed: 60, topBottomSpeed: 50, infillSpeed: 80 }
    expect(ids(evidence(half))).not.toContain('first-layer-fast')
    expect(ids(evidence({ ...half, firstLayerSpeed: 70 }))).toContain('first-layer-fast')
  })
})

describe('checks', () => {
  it('are silent about an ordinary print', () => expect(ids(evidence())).toEqual([]))

  it.each([...ofSettings, ...ofFigures])('%s speaks where it must and only there', (id, speaks, silent) => {
    expect(ids(speaks)).toContain(id)
    expect(ids(silent)).not.toContain(id)
  })

  it.each(ofSettings)('%s is settled by what it offers', (id, speaks) => {
    const fix = runChecks(speaks).find((check) => check.id === id)?.fix
    if (!fix?.values) return
    const own = settingNames
      .filter((name) => speaks.resolved.origins[name] === 'profile')
      .map((name) => [name, speaks.resolved.settings[name]])
    const values = { ...Object.fromEntries(own), ...fix.values } as SettingValues
    const before = runChecks(speaks)
    const resolved = resolveSettings(speaks.setup, values)
    const after = runChecks({ ...speaks, resolved, heats: askedHeats(resolved.settings, []) })
    expect(after.map((check) => check.id)).not.toContain(id)
    const grave = severities.indexOf(before.find((check) => check.id === id)!.severity)
    const raised = after.filter((check) => !before.some((other) => other.id === check.id))
    for (const check of raised) expect(severities.indexOf(check.severity), check.message).toBeGreaterThanOrEqual(grave)
  })

  it.each(inWords)('%s tells its numbers and what to do', (id, change, says) => {
    const found = runChecks(seeing(change)).filter((check) => check.id === id)
    expect(found).toHaveLength(1)
    expect(found[0]!.message).toMatch(says)
  })

  it('are at least fifty, and none goes untried', () => {
    const tried = [...ofSettings, ...ofFigures, ...inWords].map(([id]) => id)
    expect(allRules.length).toBeGreaterThanOrEqual(50)
    expect(new Set(allRules.map(({ id }) => id)).size).toBe(allRules.length)
    expect(allRules.filter(({ id }) => !tried.some((other) => other === id || other.startsWith(`${id}-`))).map(({ id }) => id)).toEqual([])
  })

  it('offer only what a profile can hold, in words', () => {
    for (const [id, speaks] of [...ofSettings, ...ofFigures, ...inWords.map(([id, change]) => [id, seeing(change)] as const)]) {
      const fix = runChecks(speaks).find((check) => check.id === id)?.fix
      if (!fix) continue
      expect(fixWords(fix).length, id).toBeGreaterThan(3)
      for (const [name, value] of Object.entries(fix.values ?? {}))
        expect(() => parseValue(name, String(value)), `${id}: ${name}`).not.toThrow()
    }
  })

  it('end their sentences, name what is so, and say what to do or offer it', () => {
    for (const [id, speaks] of [...ofSettings, ...ofFigures]) {
      const { evidence: is, means, todo, fix } = runChecks(speaks).find((check) => check.id === id)!
      for (const text of [is, means, todo]) expect(text, id).toMatch(/^$|[.:]$/)
      expect(is, id).not.toBe('')
      expect(todo !== '' || fix !== undefined || means !== '', id).toBe(true)
      expect(`${is}${means}${todo}`, id).not.toMatch(/NaN|undefined|Infinity|!/)
    }
  })

  it('put the gravest first', () => {
    const many = runChecks(evidence({ pushBackSpeed: 60, bedTemperature: 30 }, setupOf(), { sizeMm: [999, 50, 50] }))
    expect(many.map(({ severity }) => severity)).toEqual(['stop', 'caution', 'note'])
  })

  it('warn of loads and of food, when the part is for that', () => {
    expect(purposeChecks(noPurpose)).toEqual([])
    const [load, food] = purposeChecks({ kind: 'load', touchesFood: true })
    expect(load!.message).toMatch(/never a rating.*margin.*no helmets/)
    expect(food).toMatchObject({ severity: 'caution', school: expect.stringContaining('disagree') })
    expect(food!.message).toMatch(/local rules/)
  })

  it('concern settings that exist', () => {
    const known = new Set<SettingName>(settingNames)
    for (const { setting } of allRules) if (setting) expect(known).toContain(setting)
  })
})
