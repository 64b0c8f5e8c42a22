import { beforeAll, describe, expect, it } from 'vitest'
import { addedUm } from '../physics/finish/surfaceMarks'
import { loadKinds } from '../physics/strength/sectionLoads'
import type { PredictOptions } from '../pipeline/layDown'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, moved, partOf } from '../testing/solids'
import { type Fields, fieldsOf } from './fields'

const placement = { scale: 1, rotateDeg: [0, 0, 0] } as const
const stepped = partOf('fields', joined(blockMesh(30, 20, 6), moved(blockMesh(8, 8, 6), 0, 0, 6)))
let options: PredictOptions
let p: Prediction
let fields: Fields
beforeAll(async () => {
  options = { kernel: await testKernel, cache: new StageCache(20) }
  p = predict(stepped, { ...placement, rotateDeg: [0, 0, 0] }, setupOf(), {}, options)
  fields = fieldsOf(stepped, { ...placement, rotateDeg: [0, 0, 0] }, setupOf(), {}, options)
})
const finite = (values: ArrayLike<number>): number[] => Array.from(values).filter(Number.isFinite)

describe('fields to draw', () => {
  it('of layers hold what the figures are the worst or the sum of', () => {
    const { layers } = fields
    for (const track of Object.values(layers)) expect(track.length).toBe(p.layerCount)
    expect(layers.timeS.reduce((sum, s) => sum + s, 0)).toBeCloseTo(p.timeS, 3)
    expect(Math.max(...layers.melt)).toBe(p.melt.highest)
    expect(Math.min(...finite(layers.cooling.slice(1)))).toBeCloseTo(p.cooling.margin, 9)
    expect(Math.min(...layers.bond)).toBe(p.bond.worst)
    expect(layers.swayMm.at(-1)).toBeLessThanOrEqual(p.sway.mostMm + 1e-9)
    // The first layer takes the bed's face.
    expect(layers.gloss[0]).toBeNaN()
    expect(finite(layers.gloss).length).toBe(p.layerCount - 1)
  })

  it('of moves reach the highest load, and shine on the outer wall only', () => {
    expect(Math.max(...fields.moves.meltLoad)).toBeCloseTo(p.melt.highest, 5)
    const shining = finite(fields.moves.gloss)
    expect(shining.length).toBeGreaterThan(100)
    expect(shining.length).toBeLessThan(fields.moves.gloss.length / 2)
  })

  it('of facets give the mean roughness', () => {
    const { areaMm2, raUm } = fields.facets
    const area = areaMm2.reduce((sum, own) => sum + own, 0)
    expect(areaMm2.reduce((sum, own, t) => sum + own * raUm[t]!, 0) / area).toBeCloseTo(
      p.surface.raMeanUm - p.surfaceMarks.reduce((sum, mark) => sum + addedUm(mark, p.surface), 0),
      9,
    )
  })

  it('of sections have the figure for their least, where the figure says', () => {
    for (const axis of ['x', 'y', 'z'] as const) {
      for (const kind of loadKinds) {
        const { loadN, weakestAtMm, by, unfit } = p.strength[`${kind}${axis.toUpperCase() as 'X' | 'Y' | 'Z'}`]
        // What is pressed gives way as a whole a little before its weakest section.
        if (by === 'buckling' || unfit || kind === 'crush') continue
        const loads = fields.sections[axis].loadN[kind]
        const least = Math.min(...loads)
        expect(least).toBeCloseTo(loadN, 6)
        const { atMm } = fields.sections[axis]
        // Told is where it leaves the grip, within the section that is judged.
        expect(Math.abs(atMm[loads.indexOf(least)]! - weakestAtMm)).toBeLessThanOrEqual((atMm[1]! - atMm[0]!) / 2 + 1e-9)
      }
    }
  })
})

describe('overrides of heat and fan', () => {
  const above = (values: SettingValues, box?: { minX: number; maxX: number; minY: number; maxY: number }) =>
    predict(
      stepped,
      { ...placement, rotateDeg: [0, 0, 0] },
      setupOf(),
      {},
      {
        ...options,
        overrides: [{ name: 'top', fromZ: 6, ...(box ? { box } : {}), values }],
      },
    ).tracks

  it('are felt from their height on, and nowhere below', () => {
    const hot = above({ nozzleTemperature: 230 })
    const layer = (z: number) => p.tracks.z.findIndex((top) => top > z)
    expect(hot.melt[layer(9)]!).toBeLessThan(p.tracks.melt[layer(9)]!)
    expect(hot.melt[layer(3)]!).toBeCloseTo(p.tracks.melt[layer(3)]!, 9)
    expect(hot.bond[layer(9)]!).toBeGreaterThan(p.tracks.bond[layer(9)]!)
    expect(hot.cooling[layer(9)]!).toBeLessThan(p.tracks.cooling[layer(9)]!)
    const still = above({ fanSpeed: 0 })
    expect(still.cooling[layer(9)]!).toBeLessThan(p.tracks.cooling[layer(9)]!)
    expect(still.cooling[layer(3)]!).toBeCloseTo(p.tracks.cooling[layer(3)]!, 9)
  })

  it('count by the share of the lines of a layer that they cover', () => {
    const layer = p.tracks.z.findIndex((top) => top > 9)
    const [none, half, all] = [p.tracks, above({ fanSpeed: 0 }, { minX: 0, maxX: 20, minY: -20, maxY: 20 }), above({ fanSpeed: 0 })]
    expect(half.cooling[layer]!).toBeLessThan(none.cooling[layer]!)
    expect(half.cooling[layer]!).toBeGreaterThan(all.cooling[layer]!)
  })
})
