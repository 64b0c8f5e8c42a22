import { caseAlong } from '@sable/core/physics/solved/casesAlong'
import { solvedCasesWork } from '@sable/core/physics/solved/solvedLoad'
import type { Case } from '@sable/core/physics/solved/structure'
import { extentOf, voxelsOf } from '@sable/core/physics/solved/voxels'
import { usualGrip } from '@sable/core/physics/strength/grip'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict } from '@sable/core/pipeline/predict'
import { plasticOf } from '@sable/core/pipeline/solvedWork'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { testKernel } from '@sable/core/testing/kernel'
import { partOf } from '@sable/core/testing/solids'
import { runToEnd } from '@sable/core/units/steps'
import { expect, it } from 'vitest'
import { demoLineups } from './lineups'
import { carryHook } from './parts/carryHook'

it('the carry hook bears in two cases what a prototype of the solver said, and they are far from each other', async () => {
  const part = partOf('carry hook', carryHook())
  const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
  const choice = { kernel: await testKernel }
  const found: Record<string, { readonly pressed: number; readonly pulled: number }> = {}
  for (const { name, printer, nozzle, material, values } of demoLineups[0]!.candidates) {
    const setup = {
      printer: starterPrinters.find(({ key }) => key === printer)!,
      nozzle: starterNozzles.find(({ key }) => key === nozzle)!,
      material: starterMaterials.find(({ key }) => key === material)!,
    }
    const laid = layDown(part, placement, setup, values, choice)
    const prediction = predict(part, placement, setup, values, choice)
    const bent = caseAlong(extentOf(laid.single), 'y', 'bend', usualGrip)
    // Held low, pressed aside far from there.
    const pressed: Case = { holds: bent.holds, loads: [bent.loads[0]] }
    // Held by the far half of its eye, pulled where the bend is lowest; its plan in the part's own coordinates, which lie so far from those of its lines.
    const [dx, dy] = [laid.mesh.positions[0]! - part.mesh.positions[0]!, laid.mesh.positions[1]! - part.mesh.positions[1]!]
    const box = (low: readonly [number, number], high: readonly [number, number]) => [
      { kind: 'box', low: [low[0] + dx, low[1] + dy, -1], high: [high[0] + dx, high[1] + dy, 10] } as const,
    ]
    const pulled: Case = {
      holds: [{ where: box([0, 57], [40, 80]), along: [true, true, true] }],
      loads: [[{ where: box([-5, -30], [5, -8]), force: [0, -1, 0] }]],
    }
    const [one, other] = runToEnd(solvedCasesWork(voxelsOf(laid.single, 0.9), plasticOf(setup, laid.single, prediction), [pressed, pulled]))
    found[name] = { pressed: one!.load.failureN, pulled: other!.load.failureN }
  }
  // Measured once on a prototype, at the same width of cells.
  const wanted = { everyday: [62, 205], sturdy: [81, 274], quick: [47, 149] }
  for (const [name, [pressed, pulled]] of Object.entries(wanted) as [string, [number, number]][]) {
    expect(Math.abs(found[name]!.pressed / pressed - 1), `${name}, pressed`).toBeLessThan(0.1)
    expect(Math.abs(found[name]!.pulled / pulled - 1), `${name}, pulled`).toBeLessThan(0.1)
  }
})
