import { beforeAll, describe, expect, it } from 'vitest'
import { type ConstantId, type Constants, constantIds, constantOf, medians, moved, valueIn, withValue } from '../constants/constants'
import { figureRows, isFigureId } from '../figures/figures'
import type { FigureRow } from '../figures/table/figure'
import type { Mesh } from '../mesh/mesh'
import { noPurpose, type Purpose, placeOf } from '../physics/strength/purpose'
import type { PredictOptions } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { SettingValues } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, partOf, moved as shifted, solids } from '../testing/solids'

/** Two posts under a roof, and a flat cone: travel over air, overhangs, shallow slopes, small and tall. */
const posts = async () => {
  const { Manifold } = await solids
  return joined(
    blockMesh(30, 14, 2),
    shifted(blockMesh(5, 5, 14), -9, 0, 2),
    shifted(blockMesh(5, 5, 14), 9, 0, 2),
    shifted(blockMesh(26, 10, 1.2), 0, 0, 16),
    shifted(meshOf(Manifold.cylinder(1, 5, 0.5, 24)), 0, 0, 17.2),
  )
}
/** A plate with a hole, on two feet: the span between them is open below. */
const bridged = async () => {
  const { Manifold } = await solids
  const plate = Manifold.cube([60, 14, 3], true)
    .translate([0, 0, 6])
    .subtract(Manifold.cylinder(10, 2, 2, 32).translate([-24, 0, 0]))
  const foot = (x: number) => Manifold.cube([16, 14, 5], true).translate([x, 0, 2.5])
  return meshOf(Manifold.union([plate, foot(22), foot(-22).subtract(Manifold.cylinder(20, 2, 2, 32).translate([-24, 0, -5]))]))
}
const rod = async () => blockMesh(3, 3, 90)

/** Prints between which every constant has a say. */
const scenes: Readonly<
  Record<string, { readonly setup: Setup; readonly values?: SettingValues; readonly purpose?: Purpose; readonly of?: () => Promise<Mesh> }>
> = (() => {
  const base = setupOf()
  const nozzle = (more: Partial<Setup['nozzle']>): Setup => ({ ...base, nozzle: { ...base.nozzle, ...more } })
  const material = (more: Partial<Setup['material']>): Setup => ({ ...base, material: { ...base.material, ...more } })
  const hot = {
    flowLimit: 200,
    outerWallSpeed: 300,
    innerWallSpeed: 300,
    infillSpeed: 300,
    topBottomSpeed: 300,
    minLayerTime: 0,
    acceleration: 9000,
  }
  /** As fast, and thick, within what the hot end is thought to bear. */
  const { flowLimit: _, ...asked } = hot
  const held: SettingValues = { ...asked, layerHeight: 0.3 }
  const upright: Purpose = { ...noPurpose, load: { ...noPurpose.load, axis: 'z' } }
  const slanted: Purpose = { ...noPurpose, load: { ...noPurpose.load, kind: 'pull', axis: 'free', azimuthDeg: 20, elevationDeg: 50 } }
  return {
    usual: { setup: base, values: { ironing: 'on', supports: 'plain', infillDensity: 12 } },
    quick: { setup: base, values: held, purpose: upright },
    notAhead: { setup: { ...base, printer: { ...base.printer, extruder: 'direct', pressureAdvance: 0 } } },
    notAheadThroughTube: { setup: { ...base, printer: { ...base.printer, extruder: 'tube', pressureAdvance: 0 } } },
    small: { setup: setupOf('dory', 'bore-0.4', 'petg'), values: held, purpose: upright },
    large: { setup: setupOf('cutter', 'bore-0.4', 'abs'), purpose: upright },
    largest: {
      setup: { ...base, printer: { ...base.printer, hotEnd: { ...base.printer.hotEnd, class: 'extraLong' } } },
      values: held,
    },
    hard: { setup: nozzle({ body: 'hardenedSteel' }), values: hot, purpose: upright },
    carbide: { setup: nozzle({ body: 'tungstenCarbide' }), values: hot },
    plated: {
      setup: nozzle({ body: 'platedCopper', length: 'long', geometry: 'split' }),
      values: held,
    },
    fine: { setup: nozzle({ bore: 0.25 }), values: { ...hot, lineWidth: 0.25, layerHeight: 0.12 } },
    diamond: { setup: nozzle({ body: 'diamondTip' }), values: hot },
    starved: {
      setup: base,
      values: { ...hot, nozzleTemperature: 168, layerHeight: 0.35, outerWallSpeed: 600, innerWallSpeed: 600, topBottomSpeed: 600 },
      purpose: upright,
    },
    ladder: { setup: material({ ladder: [{ temperature: 210, flow: 12 }] }), values: { outerWallSpeed: 200, innerWallSpeed: 200 } },
    cold: { setup: base, values: { nozzleTemperature: 170, fanSpeed: 100, retractLength: 0 }, purpose: upright },
    weak: { setup: { ...base, printer: { ...base.printer, cooling: 18 } }, values: { fanSpeed: 0 }, purpose: upright },
    slender: { setup: base, of: rod, purpose: { ...noPurpose, load: { ...noPurpose.load, kind: 'crush', axis: 'z' } } },
    brittle: { setup: material({ strength: { ...base.material.strength, bondFactor: 0.05 } }), purpose: upright },
    slanted: { setup: base, purpose: slanted },
    bridged: { setup: { ...base, printer: { ...base.printer, shaping: true } }, of: bridged },
    nylon: { setup: setupOf('cutter', 'bore-0.4', 'fibre-nylon') },
    open: {
      setup: {
        ...setupOf('dory', 'bore-0.4', 'flexible'),
        stock: { remaining: { grams: 500, doubtG: 3, metres: 160, from: 'weighed' }, days: 20, wet: true, others: [] },
      },
      values: { retractLength: 0.8, wipeLength: 1, coastLength: 0.2, fanSpeed: 40 },
    },
  }
})()

/** Every row, with the figure that it is or stands beneath. */
const rows = figureRows.flatMap((figure) => [
  { row: figure as FigureRow, figure: figure.id as string },
  ...(figure.parts ?? []).map((row) => ({ row, figure: isFigureId(row.id) ? row.id : figure.id })),
])

describe('each constant', () => {
  /** Figures that it moved in some scene. */
  const byConstant = new Map<ConstantId, Set<string>>(constantIds.map((id) => [id, new Set()]))
  beforeAll(async () => {
    const kernel = await testKernel
    for (const { setup, values = {}, purpose = noPurpose, of = posts } of Object.values(scenes)) {
      const part = partOf(of.name, await of())
      const options: PredictOptions = { kernel, cache: new StageCache(30), load: placeOf(purpose) }
      const told = (constants: Constants): number[] => {
        const p = predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, { ...setup, constants }, values, options)
        return rows.map(({ row }) => row.of(p, purpose).value)
      }
      const before = told(medians)
      for (const id of constantIds)
        for (const steps of [1, -1]) {
          const after = told(withValue(medians, id, moved(id, valueIn(medians, id), steps)))
          for (const [i, { figure }] of rows.entries())
            if (Math.abs(after[i]! - before[i]!) > 1e-9 * Math.abs(before[i]!)) byConstant.get(id)!.add(figure)
        }
    }
  })

  it.each(constantIds)('%s moves what it says it moves, and nothing else', (id) => {
    const found = [...byConstant.get(id)!]
    expect(found).not.toEqual([])
    expect(constantOf(id).moves).toEqual(expect.arrayContaining(found))
  })
})
