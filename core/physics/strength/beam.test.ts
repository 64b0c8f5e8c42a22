import { beforeAll, describe, expect, it } from 'vitest'
import { medians } from '../../constants/constants'
import { statedLoad } from '../../figures/table/stated'
import type { Mesh } from '../../mesh/mesh'
import { predict } from '../../pipeline/predict'
import type { OwnStrength } from '../../pipeline/strengthWork'
import type { SettingValues } from '../../profile/settings'
import { testKernel } from '../../testing/kernel'
import { setupOf } from '../../testing/setups'
import { blockMesh, meshOf, partOf, solids, turnedAbout } from '../../testing/solids'
import { infillModulusInPlane } from './infillModulus'
import { noPurpose } from './purpose'
import type { LoadFigure } from './strengthFigures'
import { flatWalls } from './thinWalls'

let made = 0
/** A part of the plain material, whose strength is made 50 MPa of 3000, the same along and across its lines. */
async function foretold(mesh: Mesh, values: SettingValues = {}, alike = true, material = 'pla') {
  const setup = setupOf('lugger', 'bore-0.4', material)
  const strength = { ...setup.material.strength, inLayer: 50, modulus: 3000 }
  return predict(
    partOf(`beam-${made++}`, mesh),
    { scale: 1, rotateDeg: [0, 0, 0] },
    {
      ...setup,
      material: material === 'pla' ? { ...setup.material, strength } : setup.material,
      constants: { ...medians, strength: { ...medians.strength, acrossLines: alike ? 1 : medians.strength.acrossLines } },
    },
    { infillDensity: 100, ...values },
    { kernel: await testKernel },
  )
}
const N = ({ loadN }: LoadFigure): number => loadN

describe('a plate that stands turned about the upright axis', () => {
  const at = (degrees: number) => foretold(turnedAbout(blockMesh(60, 3, 40), degrees))

  it('is bent across its layers at the same load, by the smaller principal moment (any handbook)', async () => {
    const straight = (await at(0)).strength.bendZ.loadN
    for (const degrees of [10, 30, 45, 60, 77]) expect(Math.abs((await at(degrees)).strength.bendZ.loadN / straight - 1)).toBeLessThan(0.05)
  })

  it('has its own length for an axis, so that its weakest bend is the same', async () => {
    const weakest = async (degrees: number) => statedLoad(await at(degrees), noPurpose).loadN
    const straight = await weakest(0)
    for (const degrees of [10, 45, 60]) expect(Math.abs((await weakest(degrees)) / straight - 1)).toBeLessThan(0.05)
    const { own } = await at(30)
    expect(own!.map(({ azimuthDeg }: OwnStrength) => azimuthDeg)).toEqual([30, 120])
    expect((await at(0)).own).toBeUndefined()
  })
})

describe('a part that is bent by itself', () => {
  let hook: Awaited<ReturnType<typeof foretold>>
  let ring: Awaited<ReturnType<typeof foretold>>
  beforeAll(async () => {
    const { CrossSection, Manifold } = await solids
    const whole = CrossSection.circle(23, 128).subtract(CrossSection.circle(17, 128))
    const open = whole.subtract(CrossSection.square([40, 12], true).translate([20, 0]))
    hook = await foretold(meshOf(Manifold.extrude(open, 8)))
    ring = await foretold(meshOf(Manifold.extrude(whole, 8)))
  })

  it('opens as a hook of mean radius 20, 6 × 8 mm, 50 MPa at 103 N (Winkler, as in Timoshenko, Strength of Materials II; from memory)', () => {
    expect(Math.abs(hook.strength.pullY.loadN / 103.4 - 1)).toBeLessThan(0.08)
  })

  it('is told without a number where it is a ring or a frame, and says why', () => {
    for (const load of ['pullX', 'bendX', 'crushY', 'threePointY'] as const) {
      expect(ring.strength[load]).toMatchObject({ unfit: 'frame', loadN: Number.NaN })
    }
    // Pressed upright it is a short tube.
    expect(N(ring.strength.crushZ)).toBeGreaterThan(20_000)
  })

  it('is pulled straight where four legs bear side by side', async () => {
    const { Manifold } = await solids
    const leg = (x: number, y: number) => Manifold.cube([6, 6, 40], true).translate([x, y, 25])
    const plate = (z: number) => Manifold.cube([40, 40, 10], true).translate([0, 0, z])
    const table = Manifold.union([plate(5), plate(45), leg(-15, -15), leg(15, -15), leg(-15, 15), leg(15, 15)])
    const { strength } = await foretold(meshOf(table))
    expect(strength.bendZ.unfit).toBe('frame')
    expect(N(strength.crushZ) / (50 * 4 * 36)).toBeCloseTo(1, 1)
  })
})

describe('what is no beam', () => {
  it('is told without a number: a sheet across itself, a part in two pieces', async () => {
    const sheet = await foretold(blockMesh(60, 60, 0.4))
    expect(sheet.strength.bendZ.unfit).toBe('stub')
    // A rod that stands: across its thickness it is as wide as it is high.
    expect((await foretold(blockMesh(8, 8, 110))).strength.bendY.unfit).toBe('stub')
    const { Manifold } = await solids
    const apart = await foretold(meshOf(Manifold.cube([10, 10, 10]).add(Manifold.cube([10, 10, 10]).translate([40, 0, 0]))))
    expect(apart.strength.pullX.unfit).toBe('apart')
    expect(apart.strength.crushZ.unfit).toBeUndefined()
    // The weakest that is known stands for the whole.
    expect(statedLoad(sheet, noPurpose).loadN).toBeGreaterThan(0)
  })

  it('never has a load of nothing or without end, whatever its size', async () => {
    for (const [x, y, z] of [
      [1, 1, 1],
      [0.5, 8, 0.6],
      [120, 2, 2],
      [3, 3, 90],
      [20, 20, 0.2],
    ] as const) {
      const { strength } = await foretold(blockMesh(x, y, z))
      for (const { loadN, stiffnessNmm, unfit } of Object.values(strength)) {
        expect(unfit !== undefined || (loadN > 0 && Number.isFinite(loadN) && stiffnessNmm > 0)).toBe(true)
      }
    }
  })
})

describe('thin walls that are pressed', () => {
  it('stand by their edges: an empty box of 80 mm and one wall crushes at about 480 N (effective width, von Kármán; from memory)', async () => {
    const { strength } = await foretold(blockMesh(80, 80, 80), { wallCount: 1, infillDensity: 0 })
    expect(Math.abs(strength.crushZ.loadN / 480 - 1)).toBeLessThan(0.1)
  })

  it('buckle along every level direction alike: an empty box that lies turned is crushed along its own sides at the same load', async () => {
    const empty = { wallCount: 1, infillDensity: 0 }
    const straight = await foretold(blockMesh(60, 60, 40), empty)
    const { own } = await foretold(turnedAbout(blockMesh(60, 60, 40), 30), empty)
    for (const { figures } of own!) expect(Math.abs(figures.crush.loadN / straight.strength.crushX.loadN - 1)).toBeLessThan(0.07)
  })

  it('are held by infill', async () => {
    const at = async (infillDensity: number) =>
      (await foretold(blockMesh(60, 60, 60), { wallCount: 1, infillDensity })).strength.crushZ.loadN
    expect(await at(10)).toBeGreaterThan(8 * (await at(0)))
  })

  it('are as wide as they stay flat: a side of a square, and of a round shell √(8·R·t)', async () => {
    const { CrossSection, Manifold } = await solids
    const { slice } = await import('../../slicing/slice')
    const { settingsOf } = await import('../../testing/setups')
    const flatOf = async (mesh: Mesh) => flatWalls(slice(mesh, () => settingsOf(), await testKernel).outlines, 0.4)[5]!
    expect(await flatOf(blockMesh(40, 25, 5))).toBeCloseTo(40, 1)
    expect(Math.abs((await flatOf(meshOf(Manifold.extrude(CrossSection.circle(30, 400), 5)))) / Math.sqrt(8 * 30 * 0.4) - 1)).toBeLessThan(
      0.1,
    )
  })

  it('give way between stout and slender by both (Johnson; any handbook)', async () => {
    // Free to turn at its ends, 80 of 100 mm, 6 × 6: σe = π²·E/(L/i)² = 13.9 MPa is Euler's, 10 × 10 (38.6 MPa) Johnson's.
    const crush = async (side: number) => (await foretold(blockMesh(100, side, side))).strength.crushX
    expect((await crush(6)).by).toBe('buckling')
    const stout = await crush(10)
    const euler = (Math.PI ** 2 * 3000) / (80 ** 2 / (10 ** 2 / 12))
    expect(stout.loadN / (5000 * (1 - 50 / (4 * euler)))).toBeCloseTo(1, 1)
  })
})

describe('lines and infill', () => {
  it('bear 0.6 to 0.8 across themselves of what they bear along (common practice; from memory)', async () => {
    // Concentric loops of a narrow plate run along its length.
    const { strength } = await foretold(blockMesh(60, 12, 2), { wallCount: 20 }, false)
    const perArea = (load: LoadFigure, mm2: number) => N(load) / mm2
    const ratio = perArea(strength.pullY, 60 * 2) / perArea(strength.pullX, 12 * 2)
    expect(ratio).toBeGreaterThan(0.6)
    expect(ratio).toBeLessThan(0.85)
  })

  it('at 45° is held sideways by tops and bottoms: between the folding cell and a quarter of its density (Gibson & Ashby 1997; turned stiffness, any text on composites)', () => {
    const [d, slant] = [0.2, Math.PI / 4]
    const free = infillModulusInPlane(d, slant, 'grid')
    expect(free).toBeLessThan(0.01)
    expect(infillModulusInPlane(d, slant, 'grid', 0.1)).toBeGreaterThan(10 * free)
    expect(infillModulusInPlane(d, slant, 'grid', 1e6) / (d / 4)).toBeCloseTo(1, 1)
    // Along its lines nothing folds.
    expect(infillModulusInPlane(d, 0, 'grid', 1)).toBeCloseTo(infillModulusInPlane(d, 0, 'grid'), 9)
  })

  it('of a short bar are judged where it leaves the grip: within 3 % of σ·W/arm (Euler–Bernoulli)', async () => {
    for (const length of [20, 30, 60]) {
      const { strength } = await foretold(blockMesh(length, 8, 8))
      expect(Math.abs(strength.bendX.loadN / ((50 * 8 ** 3) / 6 / (0.8 * length)) - 1)).toBeLessThan(0.03)
    }
  })
})

it('a flexible part is judged by the load that moves it a tenth of its arm', async () => {
  const { strength } = await foretold(blockMesh(60, 10, 4), {}, true, 'flexible')
  const { by, loadN, stiffnessNmm } = strength.bendX
  expect(by).toBe('deflection')
  expect(loadN / stiffnessNmm).toBeCloseTo(0.1 * 0.8 * 60, 0)
})
