import { describe, expect, it } from 'vitest'
import { noPurpose } from '../physics/strength/purpose'
import type { Override } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import { figuresOf } from '../search/figures'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, moved, partOf } from '../testing/solids'
import { type Prediction, predict } from './predict'

/** Two posts: the nozzle crosses open air on every layer above the plate. */
const part = partOf('two posts', joined(blockMesh(30, 8, 1), moved(blockMesh(6, 6, 12), -11, 0, 1), moved(blockMesh(6, 6, 12), 11, 0, 1)))

const predictWith = async (values: SettingValues, overrides: readonly Override[] = []): Promise<Prediction> =>
  predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, setupOf(), values, { kernel: await testKernel, overrides })

/** Everywhere by an override, or by the profile: the figures must not tell which. */
const everywhere: readonly SettingValues[] = [
  { retractLength: 0 },
  { nozzleTemperature: 225 },
  { infillDensity: 45 },
  { infillDensity: 30, infillPattern: 'triangles' },
  { fanSpeed: 20 },
  { minLayerTime: 12 },
  { flow: 92 },
  { ironing: 'on' },
  { outerWallSpeed: 25, acceleration: 900 },
  { cornerSpeed: 3 },
]

describe('an override of the whole part', () => {
  it.each(everywhere)('%o tells the figures of a profile that says so itself', async (values) => {
    const byProfile = figuresOf(await predictWith(values), noPurpose)
    const byOverride = figuresOf(await predictWith({}, [{ name: 'all', fromZ: 0, values }]), noPurpose)
    for (const [name, value] of Object.entries(byProfile) as [string, number][])
      expect(byOverride[name as keyof typeof byOverride], name).toBeCloseTo(value, 6 - Math.ceil(Math.log10(Math.abs(value) + 1)))
  })
})

describe('a band', () => {
  const band = (values: SettingValues): Override[] => [{ name: 'band', fromZ: 4, toZ: 7, values }]

  it('without retraction strings as one', async () => {
    const [plain, bare, all] = [
      await predictWith({}),
      await predictWith({}, band({ retractLength: 0 })),
      await predictWith({ retractLength: 0 }),
    ]
    expect(plain.strings.openM).toBe(0)
    expect(bare.strings.openM / all.strings.openM).toBeCloseTo(3 / 12, 1)
    expect(bare.strings.expected).toBeGreaterThan(2 * plain.strings.expected)
  })

  it('that is hotter oozes more there, and the rest as before', async () => {
    const [plain, warm, all] = [
      await predictWith({}),
      await predictWith({}, band({ nozzleTemperature: 235 })),
      await predictWith({ nozzleTemperature: 235 }),
    ]
    const share = (warm.strings.expected - plain.strings.expected) / (all.strings.expected - plain.strings.expected)
    expect(share).toBeGreaterThan(0.2)
    expect(share).toBeLessThan(0.3)
  })

  it('of denser infill is stiffer only where it is', async () => {
    const [plain, dense] = [await predictWith({ wallCount: 1 }), await predictWith({ wallCount: 1 }, band({ infillDensity: 80 }))]
    expect(dense.strength.pullZ.loadN).toBeCloseTo(plain.strength.pullZ.loadN, 6)
    expect(dense.strength.pullZ.weakestAtMm < 4 || dense.strength.pullZ.weakestAtMm > 7).toBe(true)
    expect(dense.strength.pullZ.stiffnessNmm).toBeGreaterThan(1.02 * plain.strength.pullZ.stiffnessNmm)
  })

  it('that is hotter than the printer goes is refused by name, as one of the profile is', async () => {
    const { checks } = await predictWith({}, band({ nozzleTemperature: 320 }))
    const check = checks.find(({ id }) => id === 'hot-end-too-hot')!
    expect(check.severity).toBe('stop')
    expect(check.evidence).toContain('320 °C is asked by the override "band"')
    expect((await predictWith({ firstLayerNozzle: 320 })).checks.find(({ id }) => id === 'hot-end-too-hot')!.fix).toMatchObject({
      values: { firstLayerNozzle: expect.any(Number) },
    })
  })
})
