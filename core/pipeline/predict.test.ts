import { carryHook } from '@sable/demo/parts/carryHook'
import { beforeAll, describe, expect, it } from 'vitest'
import { medians } from '../constants/constants'
import type { PolygonKernel } from '../geometry/polygon'
import type { Part } from '../mesh/part'
import { asModelled } from '../mesh/place'
import { facetRoughness } from '../physics/finish/roughness'
import { addedUm } from '../physics/finish/surfaceMarks'
import type { Override } from '../profile/overrides'
import { definitionOf, type SettingName, type SettingValues, settingNames } from '../profile/settings'
import { type Stage, stages } from '../profile/table/setting'
import { testKernel } from '../testing/kernel'
import { settingsOf, setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { Cancelled, InputError } from '../units/errors'
import type { Work } from '../work/work'
import { type Prediction, predict } from './predict'
import { StageCache } from './stageCache'

let kernel: PolygonKernel
let hook: Part
beforeAll(async () => {
  kernel = await testKernel
  hook = partOf('hook', carryHook())
})

const shared = new StageCache(40)
const predictOn = (part: Part, values: SettingValues, setup = setupOf(), cache = shared): Prediction =>
  predict(part, asModelled, setup, values, { kernel, cache })

/** Of the surface, what layers alone make. */
const stepsOf = ({ surface, surfaceMarks }: Prediction): number =>
  surface.raMeanUm - surfaceMarks.reduce((sum, mark) => sum + addedUm(mark, surface), 0)

/** A value that is surely another than the one in force. */
function another(name: SettingName): SettingValues {
  const setting = definitionOf(name)
  const now = settingsOf()[name]
  if (setting.kind === 'choice') return { [name]: setting.choices.find((choice) => choice !== now) }
  const value = Number(now) * (name === 'minLayerTime' ? 12 : 0.7)
  const lower = setting.whole ? Math.max(setting.min, Math.round(value) - 1) : Math.min(setting.max, Math.max(setting.min, value))
  return { [name]: lower === now ? lower + setting.step : lower }
}

describe('the chain of stages', () => {
  const block = () => partOf('block', blockMesh(14, 10, 3))

  /** Computes a block and tells which stages were not found in the cache. */
  function computedStages(values: SettingValues, cache: StageCache): Set<string> {
    const computed = new Set<string>()
    const watched = Object.assign(Object.create(cache) as StageCache, {
      get: <T>(stage: string, key: string, compute: () => T): T =>
        cache.get(stage, key, () => {
          computed.add(stage)
          return compute()
        }),
      getFrom: <T>(stage: string, key: string, work: () => Work<T>): Work<T> =>
        cache.getFrom(stage, key, () => {
          computed.add(stage)
          return work()
        }),
    })
    predictOn(block(), values, setupOf(), watched)
    return computed
  }

  it.each(settingNames)('an edit of %s computes only the stage that reads it and those below', (name) => {
    const cache = new StageCache()
    // The flow that may be asked follows the nozzle's temperature, unless the profile says itself how much that is.
    const told: SettingValues = name === 'nozzleTemperature' ? { flowLimit: 9 } : {}
    computedStages(told, cache)
    const figures = ['physics', 'strength']
    const motion = ['motion', 'time', 'supportSway', ...figures]
    const toolpath = [
      'toolpath',
      'copies',
      'box',
      'volume',
      'travel',
      'sections x',
      'sections y',
      'sections z',
      'upright',
      'lineMarks',
      'openTravel',
      'longestBridge',
      ...motion,
    ]
    const treats = ['ironing', 'supports', 'lineWidth'].includes(name) ? ['surface'] : []
    const walls = ['wallCount', 'lineWidth'].includes(name) ? ['flats'] : []
    const vessel = ['bottomLayers', 'lineWidth'].includes(name) ? ['vessel'] : []
    const regions = ['regions', 'seams', 'lost', ...treats, ...walls, ...vessel, ...toolpath]
    if (name === 'seam') toolpath.push('seams')
    const below: Record<Stage, string[]> = {
      layers: ['layers', 'surface', 'loadPath', 'azimuth', 'flats', 'hole', 'vessel', ...regions],
      regions,
      toolpath,
      motion,
      figures,
    }
    expect([...computedStages({ ...told, ...another(name) }, cache)].sort()).toEqual(below[definitionOf(name).stage].sort())
  })

  it.each(
    settingNames.filter((name) => definitionOf(name).stage !== 'figures'),
  )('%s changes no figure of a stage above the one that declares it', (name) => {
    const stage = stages.indexOf(definitionOf(name).stage)
    const before = predictOn(block(), {})
    const after = predictOn(block(), another(name))
    if (stage > stages.indexOf('layers')) expect(after.layerCount).toBe(before.layerCount)
    // Ironing and supports treat surfaces that layers have made.
    if (stage > stages.indexOf('regions')) expect(stepsOf(after)).toBeCloseTo(stepsOf(before), 9)
    if (stage > stages.indexOf('toolpath')) expect([after.travel, after.seamMm]).toEqual([before.travel, before.seamMm])
  })

  it('gives the same figures from the cache as without one', () => {
    const { checks: _, ...warm } = predictOn(hook, { wallCount: 2 })
    predictOn(hook, { wallCount: 4 })
    const { checks: __, ...cold } = predictOn(hook, { wallCount: 2 }, setupOf(), new StageCache())
    expect(warm).toEqual(cold)
  })

  it('stops where the progress callback throws, and leaves nothing half-made behind', () => {
    const cache = new StageCache()
    let calls = 0
    const stopAt = (limit: number) => () => {
      if (++calls > limit) throw new Cancelled('stop')
    }
    for (const limit of [3, 20, 40]) {
      calls = 0
      expect(() => predict(block(), asModelled, setupOf(), {}, { kernel, cache, onProgress: stopAt(limit) })).toThrow(Cancelled)
    }
    expect(predictOn(block(), {}, setupOf(), cache)).toEqual(predictOn(block(), {}, setupOf(), new StageCache()))
  })
})

describe('figures of the carry hook', () => {
  it('fall in time, and in the share of acceleration, from 800 over 3000 to 20000 mm/s² (CP-T5, common practice)', () => {
    const at = (acceleration: number) => {
      const setup = setupOf('cutter')
      return predictOn(
        hook,
        {
          acceleration,
          travelAcceleration: acceleration,
          outerWallSpeed: 150,
          innerWallSpeed: 200,
          infillSpeed: 200,
          topBottomSpeed: 200,
          minLayerTime: 0,
        },
        setup,
      )
    }
    const [slow, middle, fast] = [at(800), at(3000), at(20_000)]
    expect(slow.timeS).toBeGreaterThan(middle.timeS)
    expect(middle.timeS).toBeGreaterThan(fast.timeS)
    expect(slow.limiters.acceleration).toBeGreaterThan(middle.limiters.acceleration)
    expect(middle.limiters.acceleration).toBeGreaterThan(fast.limiters.acceleration)
  })

  it('get 150 mm/s where 500 are asked at 12 mm³/s (CP-F2, common practice)', () => {
    const long = partOf('plate', blockMesh(180, 60, 3))
    const values = { layerHeight: 0.2, lineWidth: 0.4, flowLimit: 12, outerWallSpeed: 500, acceleration: 20_000 }
    const { realSpeeds } = predictOn(long, values, setupOf('cutter'))
    expect(realSpeeds.outerWall).toEqual({ speedMmS: expect.closeTo(150, 3), limiter: 'flow' })
  })

  it('take less than twice as long at half of every speed, and slowing the outer wall alone costs less (CP-T4, common practice)', () => {
    const speeds = {
      outerWallSpeed: 100,
      innerWallSpeed: 100,
      infillSpeed: 100,
      topBottomSpeed: 100,
      travelSpeed: 200,
      firstLayerSpeed: 50,
      minLayerTime: 0,
    }
    const half = Object.fromEntries(Object.entries(speeds).map(([name, value]) => [name, value / 2]))
    const full = predictOn(hook, speeds).timeS
    const halved = predictOn(hook, half).timeS
    const outerOnly = predictOn(hook, { ...speeds, outerWallSpeed: 50 }).timeS
    expect(halved).toBeGreaterThan(1.4 * full)
    expect(halved).toBeLessThan(2 * full)
    expect(outerOnly).toBeGreaterThan(full)
    expect(outerOnly).toBeLessThan(halved)
  })

  it('gain more bending strength per added minute from a wall than from ten points of infill (CP-K1, common practice)', () => {
    for (const base of [
      { wallCount: 2, infillDensity: 15 },
      { wallCount: 3, infillDensity: 15 },
      { wallCount: 3, infillDensity: 20 },
    ]) {
      const before = predictOn(hook, base)
      const gainPerMinute = (values: SettingValues, load: 'bendX' | 'bendY') => {
        const after = predictOn(hook, { ...base, ...values })
        return (after.strength[load].loadN - before.strength[load].loadN) / ((after.timeS - before.timeS) / 60)
      }
      for (const load of ['bendX', 'bendY'] as const) {
        expect(gainPerMinute({ wallCount: base.wallCount + 1 }, load)).toBeGreaterThan(
          gainPerMinute({ infillDensity: base.infillDensity + 10 }, load),
        )
      }
    }
  })

  it('gain no time from thicker layers once the flow limit binds (CP-F10, common practice)', () => {
    const setup = setupOf('lugger', 'bore-0.8')
    const at = (layerHeight: number) =>
      predictOn(
        hook,
        {
          layerHeight,
          firstLayerHeight: 0.4,
          flowLimit: 12,
          outerWallSpeed: 60,
          innerWallSpeed: 60,
          topBottomSpeed: 60,
          infillSpeed: 60,
          minLayerTime: 0,
        },
        setup,
      )
    // 0.4 × 0.8 at 60 mm/s already asks for 19 mm³/s, so 0.56 only halves the speed: the plastic takes as long to melt.
    const [thin, thick] = [at(0.4), at(0.56)]
    expect(thick.limiters.flow).toBeGreaterThan(0.5)
    expect(thick.timeS / thin.timeS).toBeGreaterThan(0.9)
    // With flow to spare the same step saves what it seems to.
    const spare = (layerHeight: number) =>
      predictOn(hook, { layerHeight, firstLayerHeight: 0.4, flowLimit: 200, minLayerTime: 0 }, setup).timeS
    expect(spare(0.56) / spare(0.4)).toBeLessThan(0.85)
  })

  it('judge a surface against the layers that it is printed in: on a belt tilted by 45° a level plate leans by 45°', () => {
    const plate = partOf('plate on a belt', blockMesh(40, 40, 1))
    const onBelt = predictOn(plate, {}, setupOf('towline'))
    // Its top leans back over the layers before; the other face lies on the belt and is not counted.
    expect(Math.abs(stepsOf(onBelt) / facetRoughness({ height: 0.2, width: 0.4 }, Math.PI / 4, false, medians.finish) - 1)).toBeLessThan(
      0.05,
    )
  })

  it('lose no detail on a belt, where the first layer is an edge', () => {
    const { checks } = predictOn(partOf('block on a belt', blockMesh(20, 30, 10)), {}, setupOf('towline'))
    expect(checks.map(({ id }) => id).filter((id) => ['detail-lost', 'thinner-than-a-line', 'begins-in-mid-air'].includes(id))).toEqual([])
  })

  it('stand when every layer of an override has no walls at all', () => {
    const bare = { name: 'bare', fromZ: 0, values: { wallCount: 0 } }
    const { filament } = predict(hook, asModelled, setupOf(), {}, { kernel, overrides: [bare] })
    expect(filament.massG).toBeGreaterThan(1)
  })

  it('tell supports and foot apart from the part', () => {
    const plain = predictOn(hook, { skirtLines: 0 }).filament
    expect([plain.supportG, plain.footG]).toEqual([0, 0])
    const brimmed = predictOn(hook, { skirtLines: 0, brim: 'outer' }).filament
    expect(brimmed.footG).toBeGreaterThan(0.1)
    expect(brimmed.massG - brimmed.footG).toBeCloseTo(plain.massG, 6)
  })

  it('follow overrides: half speed from a height on takes longer, and computes nothing above the motion', () => {
    const cache = new StageCache(40)
    const of = (overrides: readonly Override[]) => predict(hook, asModelled, setupOf(), {}, { kernel, cache, overrides })
    const slow = of([{ name: 'slow', fromZ: 5, speedPercent: 50, values: {} }])
    expect(slow.timeS).toBeGreaterThan(1.15 * of([]).timeS)
    expect(slow.filament.volumeMm3).toBeCloseTo(of([]).filament.volumeMm3, 6)
    expect(slow.limiters.override).toBeGreaterThan(0.2)
  })

  it('cost filament by mass and machine by the hour', () => {
    const { filament, timeS, startUpS } = predictOn(hook, {})
    expect(filament.massG).toBeCloseTo((filament.volumeMm3 * 1.24) / 1000, 9)
    expect(filament.lengthMm * Math.PI * 0.875 ** 2).toBeCloseTo(filament.volumeMm3, 6)
    expect(filament.cost).toBeCloseTo((filament.massG / 1000) * 20 + ((timeS + startUpS!) / 3600) * 0.18, 9)
  })

  it('scale with the part: volume by the cube', () => {
    const twice = predict(hook, { scale: 2, rotateDeg: [0, 0, 0] }, setupOf(), {}, { kernel })
    const once = predictOn(hook, {})
    expect(twice.mesh.volumeMm3 / once.mesh.volumeMm3).toBeCloseTo(8, 6)
    expect(twice.mesh.sizeMm[0] / once.mesh.sizeMm[0]).toBeCloseTo(2, 6)
  })
})

describe('parts that cannot be printed', () => {
  const checksOf = (mesh: Parameters<typeof partOf>[1], values: SettingValues = {}) =>
    predictOn(partOf(JSON.stringify([...mesh.positions.slice(0, 24)]), mesh), values).checks

  it('are too large for the printer: the check names the axis and the way out', () => {
    const [worst] = checksOf(blockMesh(400, 20, 5), { layerHeight: 1, firstLayerHeight: 1 })
    expect(worst).toMatchObject({ id: 'larger-than-printer', severity: 'stop' })
    expect(worst!.message).toMatch(/X 400\.0 mm of 250 mm.*Turn it/)
  })

  it('are thinner than a line: nothing is laid, and that is said', () => {
    const checks = checksOf(blockMesh(20, 0.15, 5))
    expect(checks[0]).toMatchObject({ id: 'nothing-laid', severity: 'stop' })
  })

  it('have a thin piece beside a thick one', () => {
    const two = {
      positions: Float64Array.from([
        ...blockMesh(10, 10, 4).positions,
        ...blockMesh(0.15, 10, 4).positions.map((v, i) => (i % 3 === 0 ? v + 20 : v)),
      ]),
      triangles: Uint32Array.from([...blockMesh(1, 1, 1).triangles, ...blockMesh(1, 1, 1).triangles.map((v) => v + 8)]),
    }
    expect(checksOf(two)).toContainEqual(
      expect.objectContaining({ id: 'thinner-than-a-line', message: expect.stringMatching(/On 20 of 20 layers/) }),
    )
  })

  it('are metres long by mistake, or would take too many layers', () => {
    const refusal = (mesh: Parameters<typeof partOf>[1], values: SettingValues): string => {
      try {
        predictOn(partOf('huge', mesh), values, setupOf(), new StageCache())
      } catch (error) {
        if (error instanceof InputError) return error.code
        throw error
      }
      return 'none'
    }
    expect(refusal(blockMesh(20_000, 10, 10), {})).toBe('part-too-large')
    expect(refusal(blockMesh(10, 10, 900), { layerHeight: 0.04 })).toBe('too-many-layers')
  })
})
