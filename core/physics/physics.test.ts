import { beforeAll, describe, expect, it } from 'vitest'
import { medians } from '../constants/constants'
import type { PolygonKernel } from '../geometry/polygon'
import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { type Prediction, predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, moved, partOf } from '../testing/solids'
import { bondFactor } from './cooling/bond'
import { infillModulusInPlane } from './strength/infillModulus'

const asModelled: Placement = { scale: 1, rotateDeg: [0, 0, 0] }
const cache = new StageCache(40)
let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})
const of = (part: Part, values: SettingValues = {}, setup = setupOf()): Prediction =>
  predict(part, asModelled, setup, values, { kernel, cache })
const block = partOf('physics block', blockMesh(40, 30, 8))
const rod = (height: number) => partOf(`rod ${height}`, blockMesh(6, 6, height))

// Orderings of common practice come out of the models: nothing here is looked up in a table.
describe('melting', () => {
  const fastSetup = setupOf('cutter', 'bore-0.4', 'pla')
  const fast: SettingValues = {
    outerWallSpeed: 280,
    innerWallSpeed: 300,
    infillSpeed: 300,
    topBottomSpeed: 280,
    acceleration: 12_000,
    travelSpeed: 400,
    minLayerTime: 0,
  }
  const large = partOf('large plate', blockMesh(140, 100, 18))
  const small = partOf('small post', blockMesh(12, 12, 18))

  it('lets a large, fast part run short of flow above the warm zone, cured by 10 °C, and a small one not (CP-F9, common practice)', () => {
    const cool = 200
    const hungry = of(large, { ...fast, nozzleTemperature: cool }, fastSetup).melt
    expect(hungry.layersShort).toBeGreaterThan(5)
    expect(hungry.highestAtZMm).toBeGreaterThan(5)
    expect(of(large, { ...fast, nozzleTemperature: cool + 5 }, fastSetup).melt.missing).toBeLessThan(hungry.missing)
    expect(of(large, { ...fast, nozzleTemperature: cool + 10 }, fastSetup).melt.layersShort).toBe(0)
    expect(of(small, { ...fast, nozzleTemperature: cool }, fastSetup).melt.layersShort).toBe(0)
  })

  it('misses nothing while the cap of the profile holds, and more the farther it is lifted', () => {
    const missing = [15, 22, 30].map((flowLimit) => of(large, { ...fast, flowLimit, nozzleTemperature: 200 }, fastSetup).melt.missing)
    expect(missing[0]).toBeLessThan(0.02)
    expect(missing[1]).toBeGreaterThan(missing[0]!)
    expect(missing[2]).toBeGreaterThan(missing[1]!)
  })

  it('says what 5 and 10 °C more would buy', () => {
    const { failsAt, failsAtPlus } = of(block).melt
    expect(failsAtPlus[0]).toBeGreaterThan(failsAt)
    expect(failsAtPlus[1]).toBeGreaterThan(failsAtPlus[0])
  })
})

describe('gloss', () => {
  const at = (outerWallSpeed: number) => of(block, { outerWallSpeed, acceleration: 8000, minLayerTime: 0 }, setupOf('dory')).gloss

  it('of a wall at 200 and at 100 mm/s is matte, at 40 mm/s glossy (CP-S2, common practice)', () => {
    expect(at(200).mean).toBeLessThan(0.35)
    expect(at(100).mean).toBeLessThan(0.35)
    expect(at(40).mean).toBeGreaterThan(0.6)
  })

  it('is never less on a slower wall', () => {
    const means = [30, 50, 80, 120, 200].map((speed) => at(speed).mean)
    for (let i = 1; i < means.length; i++) expect(means[i]!).toBeLessThanOrEqual(means[i - 1]!)
  })

  it('shows a band where layer time slows the wall (CP-S3, common practice)', () => {
    const stepped = partOf('step', joined(blockMesh(50, 50, 6), moved(blockMesh(8, 8, 8), 0, 0, 6)))
    const values = { outerWallSpeed: 150, innerWallSpeed: 150, infillSpeed: 150, topBottomSpeed: 150, acceleration: 5000 }
    const banded = of(stepped, { ...values, minLayerTime: 15 }).gloss
    const even = of(stepped, { ...values, minLayerTime: 0 }).gloss
    expect(banded.band).toBeGreaterThan(3 * even.band)
    expect(banded.bandAtZMm).toBeGreaterThan(5.5)
    expect(banded.bandAtZMm).toBeLessThan(7)
  })
})

describe('cooling and bonding', () => {
  it('needs about 5 s of PLA layers with full fan (CP-C1), and much more without', () => {
    const withFan = of(rod(20), { minLayerTime: 0, fanSpeed: 100 }).cooling
    expect(withFan.neededS).toBeGreaterThan(3)
    expect(withFan.neededS).toBeLessThan(8)
    expect(of(rod(20), { minLayerTime: 0, fanSpeed: 0 }).cooling.neededS).toBeGreaterThan(4 * withFan.neededS)
  })

  it('takes less time for thinner layers (CP-C3, common practice)', () => {
    const needed = (layerHeight: number) => of(rod(20), { layerHeight, firstLayerHeight: layerHeight }).cooling.neededS
    expect(needed(0.1) / needed(0.2)).toBeCloseTo(0.5, 1)
  })

  it('warns of small tips that are laid on before they bear, until layer time or a second part gives them rest', () => {
    expect(of(partOf('tip', blockMesh(4, 4, 12)), { minLayerTime: 0 }).cooling.tipsWarm).toBeGreaterThan(10)
    expect(of(partOf('tip', blockMesh(4, 4, 12)), { minLayerTime: 10, floorSpeed: 1 }).cooling.tipsWarm).toBe(0)
  })

  it('bonds worse with fan, cold, missing plastic and long layers (CP-K4, common practice)', () => {
    const bond = (values: SettingValues) => of(block, values).bond.mean
    expect(bond({ fanSpeed: 0 })).toBeGreaterThan(bond({ fanSpeed: 100 }))
    expect(bond({ nozzleTemperature: 190 })).toBeLessThan(bond({ nozzleTemperature: 220 }))
    const scene = { ...setupOf(), nozzleTemperature: 205, fan: 1, constants: medians.cooling, bonding: medians.bond }
    const below = { height: 0.2, seconds: 15, bedWarmth: 0 }
    expect(bondFactor(scene, below, 0.1, 0.5)).toBeCloseTo(0.9 * bondFactor(scene, below, 0, 0.5), 9)
    expect(bondFactor(scene, { ...below, seconds: medians.bond.layerTime }, 0, medians.bond.easyLoad)).toBeCloseTo(
      setupOf().material.strength.bondFactor,
      9,
    )
    expect(bondFactor(scene, below, 0, 0.8)).toBeLessThan(bondFactor(scene, below, 0, 0.5))
    expect(bondFactor(scene, { ...below, seconds: 40 }, 0, 0.5)).toBeLessThan(bondFactor(scene, below, 0, 0.5))
  })

  it('makes a part weaker across its layers alone', () => {
    const [cold, warm] = [of(block, { nozzleTemperature: 190 }).strength, of(block, { nozzleTemperature: 220 }).strength]
    expect(cold.pullZ.loadN).toBeLessThan(warm.pullZ.loadN)
    expect(cold.pullX.loadN).toBe(warm.pullX.loadN)
  })
})

describe('sway', () => {
  it('of a rod grows with the cube of its height, and stops at a wider one', () => {
    const top = (height: number) => of(rod(height), { infillDensity: 100 }).sway.mostMm
    expect(top(80) / top(40)).toBeCloseTo(8, 0)
    expect(of(partOf('wide', blockMesh(20, 20, 80)), { infillDensity: 100 }).sway.slowAboveZMm).toBeUndefined()
  })
})

describe('strings', () => {
  it('come from travel over open air, more when hot, and less when filament is pulled back', () => {
    const posts = partOf('posts', joined(moved(blockMesh(4, 4, 12), -12, 0, 0), moved(blockMesh(4, 4, 12), 12, 0, 0)))
    const pulled = of(posts, { retractLength: 0.8 }).strings
    const open = of(posts, { retractLength: 0 }).strings
    expect(open.openM).toBeGreaterThan(0.8)
    expect(pulled.pulledM).toBeGreaterThan(0.8)
    expect(pulled.expected).toBeLessThan(open.expected)
    expect(of(posts, { nozzleTemperature: 220 }).strings.expected).toBeGreaterThan(of(posts, { nozzleTemperature: 200 }).strings.expected)
    // From the skirt to the part, once.
    expect(of(block).strings.expected).toBeLessThan(1)
  })
})

describe('a flexible part', () => {
  it('gets stiff by walls, infill, tops and bottoms; a few per cent of infill under the top do little else (CP-K5, common practice)', () => {
    const sole = partOf('sole', blockMesh(60, 20, 8))
    const stiffness = (values: SettingValues) =>
      of(sole, { wallCount: 2, topLayers: 2, bottomLayers: 2, infillDensity: 5, ...values }, setupOf('dory', 'bore-0.4', 'flexible'))
        .strength.threePointX.stiffnessNmm
    const soft = stiffness({})
    expect(stiffness({ topLayers: 8 })).toBeGreaterThan(1.2 * soft)
    expect(stiffness({ wallCount: 5 })).toBeGreaterThan(1.2 * soft)
    expect(stiffness({ infillDensity: 40 })).toBeGreaterThan(soft)
    expect(stiffness({ infillDensity: 2 }) / stiffness({ infillDensity: 0 })).toBeLessThan(1.05)
    // A rigid material of the same shape is far stiffer: 3000 against 60 MPa.
    expect(
      of(sole, { wallCount: 2, topLayers: 2, bottomLayers: 2, infillDensity: 5 }).strength.threePointX.stiffnessNmm / soft,
    ).toBeCloseTo(50, -1)
  })
})

describe('infill by direction', () => {
  it('of a flat pattern is good along its walls and poor across, one in space serves all ways (CP-K2, common practice)', () => {
    const cube = partOf('cube', blockMesh(30, 30, 30))
    const load = (infillAngle: number) =>
      of(cube, { wallCount: 1, topLayers: 0, bottomLayers: 0, infillDensity: 20, infillPattern: 'grid', infillAngle }).strength.crushX
        .stiffnessNmm
    expect(load(0)).toBeGreaterThan(1.2 * load(45))
    for (const pattern of ['gyroid', 'cubic'] as const)
      expect(infillModulusInPlane(0.2, 0, pattern)).toBeCloseTo(infillModulusInPlane(0.2, Math.PI / 4, pattern), 12)
  })
})
