import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asModelled } from '../mesh/place'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import type { SettingValues } from '../profile/settings'
import { starterMaterials, starterNozzles, starterPrinters } from '../shelf/starter'
import { testKernel } from '../testing/kernel'
import { mushroom, table } from '../testing/paths'
import { blockMesh, joined, moved, partOf } from '../testing/solids'

/** Parts that ask for something: overhangs, a bridge, a slender rod, two posts, a thing in mid-air. */
const parts = [
  partOf('mushroom', mushroom()),
  partOf('table', table()),
  partOf('rod', blockMesh(3, 3, 60)),
  partOf('posts', joined(moved(blockMesh(4, 4, 14), -14, 0, 0), moved(blockMesh(4, 4, 14), 14, 0, 0))),
  partOf('afloat', joined(blockMesh(8, 8, 4), moved(blockMesh(6, 6, 3), 0, 0, 9))),
]
const candidate = fc.record({
  part: fc.constantFrom(...parts),
  setup: fc.record({
    printer: fc.constantFrom(...starterPrinters),
    nozzle: fc.constantFrom(...starterNozzles),
    material: fc.constantFrom(...starterMaterials),
  }),
  values: fc.record({
    layerHeight: fc.constantFrom(0.1, 0.2, 0.3),
    outerWallSpeed: fc.constantFrom(30, 80, 250),
    bridgeSpeed: fc.constantFrom(20, 80, 300),
    fanSpeed: fc.constantFrom(0, 30, 100),
    nozzleTemperature: fc.constantFrom(190, 210, 240, 270),
    supports: fc.constantFrom('off', 'plain', 'branching' as const),
    infillDensity: fc.constantFrom(0, 4, 15, 40),
    minLayerTime: fc.constantFrom(0, 5, 15),
    retractLength: fc.constantFrom(0, 0.8, 5),
    brim: fc.constantFrom('none', 'outer' as const),
    flowLimit: fc.constantFrom(undefined, 8, 40),
  }),
})

describe('the fix of a check', () => {
  it('changes something each time it is pressed, and never comes back the same: 24 random candidates, all their checks', async () => {
    const kernel = await testKernel
    const cache = new StageCache(40)
    const pressed = (from: SettingValues, { part, setup }: { part: (typeof parts)[number]; setup: Parameters<typeof predict>[2] }) =>
      predict(part, asModelled, setup, from, { kernel, cache }).checks.filter(({ fix }) => fix?.values)
    fc.assert(
      fc.property(candidate, ({ values: asked, ...on }) => {
        const values = Object.fromEntries(Object.entries(asked).filter(([, value]) => value !== undefined)) as SettingValues
        for (const { id, fix, otherFix } of pressed(values, on)) {
          for (const taken of [fix, otherFix]) {
            if (!taken) continue
            const after = { ...values, ...taken.values }
            const again = pressed(after, on).find((check) => check.id === id)
            if (again) expect([again.fix, again.otherFix], id).not.toContainEqual(taken)
          }
        }
      }),
      { numRuns: 24, seed: 3 },
    )
  })
})
