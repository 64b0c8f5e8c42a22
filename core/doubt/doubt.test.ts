import { beforeAll, describe, expect, it } from 'vitest'
import { leversFor } from '../advice/levers'
import { type ConstantId, constantOf, medians } from '../constants/constants'
import { figureOf, valuesOf } from '../figures/figures'
import { figureIds } from '../figures/table/figure'
import { statedLoad } from '../figures/table/stated'
import { asModelled } from '../mesh/place'
import { noPurpose } from '../physics/strength/purpose'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { checkValue, type SettingName, type SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { testKernel } from '../testing/kernel'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { type Doubtful, doubt, doubtsOf, rangeOf, whatToMeasure } from './doubt'
import { slopesOf } from './slopes'

let p: Prediction
let open: Doubtful
let fastOpen: Doubtful
let measured: Doubtful
let slowPlate: Doubtful
beforeAll(async () => {
  const kernel = await testKernel
  const part = partOf('doubtful', blockMesh(30, 20, 8))
  const cache = new StageCache(20)
  const on = (setup: Setup, values: SettingValues = {}): Prediction =>
    predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setup, values, { kernel, cache })
  const doubtful = (setup: Setup, values?: SettingValues): Doubtful => ({
    setup,
    slopes: slopesOf((constants) => valuesOf(on({ ...setup, constants }, values), noPurpose), medians),
  })
  p = on(setupOf())
  open = doubtful(setupOf())
  // As fast as the hot end allows.
  const fast = { outerWallSpeed: 400, innerWallSpeed: 400, infillSpeed: 400, topBottomSpeed: 400, minLayerTime: 0, layerHeight: 0.3 }
  fastOpen = doubtful(setupOf(), fast)
  const ladder = [
    { temperature: 200, flow: 20 },
    { temperature: 220, flow: 28 },
  ]
  const plate = partOf('slow plate', blockMesh(80, 60, 2))
  const crawling = { outerWallSpeed: 25, innerWallSpeed: 25, topBottomSpeed: 25, infillSpeed: 25, acceleration: 3000 }
  slowPlate = {
    setup: setupOf(),
    slopes: slopesOf(
      (constants) => valuesOf(predict(plate, asModelled, { ...setupOf(), constants }, crawling, { kernel, cache }), noPurpose),
      medians,
    ),
  }
  measured = doubtful({ ...setupOf(), material: { ...setupOf().material, ladder } }, fast)
})

describe('doubt', () => {
  it('combines independent constants by the root of their squares (Gauss), as half of an 80 % range', () => {
    // Sway goes with the side force and against the modulus, and with more besides.
    const squares = Object.entries(open.slopes).map(([id, own]) => ((own?.sway ?? 0) * constantOf(id as ConstantId).spread) ** 2)
    expect(doubt('sway', open)).toBeCloseTo(1.2816 * Math.sqrt(squares.reduce((sum, own) => sum + own, 0)), 6)
    expect(doubt('sway', open)).toBeGreaterThan(1.2816 * Math.hypot(0.2, 0.5) - 0.01)
    const total = Math.hypot(...doubtsOf('sway', open).map(({ share }) => share))
    expect(total).toBeCloseTo(doubt('sway', open), 12)
  })

  it('has the slopes that the models have on paper', () => {
    expect(open.slopes['print.pace']).toMatchObject({ time: expect.closeTo(1, 9), unslowed: expect.closeTo(1, 9) })
    expect(open.slopes['strength.inLayer']?.strength).toBeCloseTo(1, 9)
    expect(open.slopes['cooling.specificHeat']?.cooling).toBeCloseTo(-1, 6)
    // On a moving bed the part's own inertia is a small share of what pushes it.
    expect(open.slopes['sway.sideForce']).toEqual({ sway: expect.closeTo(1, 1) })
    const { cost, filament } = open.slopes['print.flow']!
    expect(filament).toBeCloseTo(1, 9)
    expect(cost).toBeCloseTo(p.filament.materialCost / p.filament.cost, 3)
    // g = 1/(1 + (u/u0)⁴): d ln g/d ln u0 is 4·(1 − g) where all of the wall is laid at one load, and near it here.
    expect(open.slopes['finish.glossTurn']!.gloss! / (4 * (1 - p.gloss.mean))).toBeCloseTo(1, 0)
  })

  it('of time follows the part: a fifth less acceleration costs a fast hook some per cent, and a slow plate next to nothing', () => {
    const share = (of: Doubtful): number => -of.slopes['print.acceleration']!.time!
    // +6.5 % and +0.3 % for 20 % less, seen by planning again.
    expect(Math.exp(share(fastOpen) * Math.log(1.25)) - 1).toBeGreaterThan(0.03)
    expect(Math.exp(share(slowPlate) * Math.log(1.25)) - 1).toBeLessThan(0.01)
    expect(doubt('time', fastOpen)).toBeGreaterThan(1.3 * doubt('time', slowPlate))
  })

  it('gives ranges that hold the value between them', () => {
    for (const figure of figureIds) {
      const [low, high] = rangeOf(10, doubt(figure, open))
      expect(low).toBeLessThanOrEqual(10)
      expect(high).toBeGreaterThanOrEqual(10)
    }
    expect(rangeOf(10, 0.3)[0] * rangeOf(10, 0.3)[1]).toBeCloseTo(100, 9)
  })

  it('is less where something was measured, and that is not asked for again', () => {
    expect(measured.slopes['melt.flowLong']).toBeUndefined()
    const share = (of: Doubtful, label: string): number => doubtsOf('time', of).find((one) => one.label === label)!.share
    const byLadder = share(measured, constantOf('melt.ladder').label)
    expect(byLadder).toBeLessThan(0.5 * share(fastOpen, constantOf('melt.flowLong').label))
    expect(whatToMeasure([fastOpen]).map(({ how }) => how)).toContain('Print a flow ladder at two temperatures')
    expect(whatToMeasure([measured]).map(({ how }) => how)).not.toContain('Print a flow ladder at two temperatures')
    const broken: Doubtful = {
      ...open,
      setup: { material: { ...setupOf().material, strength: { ...setupOf().material.strength, basis: 'measured' } } },
    }
    expect(doubt('strength', broken)).toBeLessThan(doubt('strength', open))
  })

  it('asks first for what removes most, each test once', () => {
    const wanted = whatToMeasure([open, measured])
    for (let i = 1; i < wanted.length; i++) expect(wanted[i]!.removes).toBeLessThanOrEqual(wanted[i - 1]!.removes)
    expect(wanted[0]!.removes).toBeGreaterThan(0)
    expect(new Set(wanted.map(({ how }) => how)).size).toBe(wanted.length)
    expect(wanted.map(({ label }) => label)).toContain(constantOf('strings.ooze').label)
    expect(wanted.reduce((sum, { removes }) => sum + removes, 0)).toBeLessThan(1)
    expect(whatToMeasure([])).toEqual([])
  })
})

describe('why a figure is what it is', () => {
  const explain = (figure: (typeof figureIds)[number], purpose = noPurpose) => figureOf[figure].explain(p, knownSetup(setupOf()), purpose)

  it.each(figureIds)('%s is told with its equation, numbers, place, basis and source', (figure) => {
    const told = explain(figure)
    expect(told.equation.length).toBeGreaterThan(8)
    expect(told.terms.length).toBeGreaterThan(1)
    for (const { label, value } of told.terms) expect(`${label} ${value}`).not.toMatch(/NaN|undefined|Infinity/)
    expect(told.place.length).toBeGreaterThan(10)
    expect(told.source.length).toBeGreaterThan(5)
  })

  it('tells the same numbers as the figure', () => {
    const { terms } = explain('cost')
    expect(terms[0]!.value).toContain(`= ${p.filament.materialCost.toFixed(2)}`)
    const { place, source } = explain('strength')
    expect(place).toContain(`${statedLoad(p, noPurpose).weakestAtMm.toFixed(1).replace('-', '−')} mm`)
    expect(source).toContain('never a rating')
    const crushed = { ...noPurpose, load: { ...noPurpose.load, kind: 'crush', axis: 'x' } } as const
    expect(explain('strength', crushed).terms[0]!.value).toBe('pressed together along X')
  })
})

describe('single changes to try', () => {
  it('are possible values, other than those in force, and only of what means something', () => {
    for (const values of [{}, { infillDensity: 0, wallCount: 1, fanSpeed: 0, nozzleTemperature: 500 }]) {
      const settings = settingsOf(values)
      const levers = leversFor(settings)
      expect(levers.length).toBeGreaterThan(8)
      for (const { name, values: changed } of levers) {
        const value = changed[name]
        expect(checkValue(name, value)).toBe(value)
        expect(value).not.toBe(settings[name as SettingName])
      }
    }
    expect(leversFor(settingsOf({ infillDensity: 0 })).map(({ label }) => label)).not.toContain('ten points less infill')
  })
})
