import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { expect, it } from 'vitest'
import { sable } from './testing'

const bar = join(mkdtempSync(join(tmpdir(), 'sable-strength-')), 'bar.stl')
writeFileSync(bar, writeStl(blockMesh(50, 8, 6), 'bar'))

it('solves a bar that is held at one end and pressed at the other, and says so in one documented object', async () => {
  const box = ['--hold', '-26,-5,-1:-20,5,7', '--load', '20,-5,-1:26,5,7', '--set', 'infillDensity=100']
  const answer = await sable('strength', bar, ...box, '--force', '0,0,-10', '--json')
  expect(answer.status).toBe(0)
  const told = answer.json()
  expect(Object.keys(told).sort()).toEqual([
    ...['at', 'by', 'cells', 'dropped', 'factor', 'failureN', 'high', 'iterations'],
    ...['low', 'residual', 'spread', 'stiffnessNmm', 'timeMs', 'voxelMm'],
  ])
  expect(told.failureN).toBeCloseTo(10 * told.factor, 6)
  // F·arm = σ·b·h²/6 at the hold, as far as lines bear along themselves; a sixth less beside grips.
  expect(told.failureN).toBeGreaterThan(0.6 * ((50 * 8 * 36) / 6 / 40))
  expect(told.failureN).toBeLessThan(1.3 * ((50 * 8 * 36) / 6 / 40))
  expect(told.at[0]).toBeLessThan(0)
  // Along the flat it bears as the section has it: wide over high.
  const flat = (await sable('strength', bar, ...box, '--force', '0,-10,0', '--json')).json()
  expect(flat.failureN / told.failureN).toBeGreaterThan(1.1)
  expect(flat.failureN / told.failureN).toBeLessThan(1.6)
})

it('refuses what is no box, no force, no load, or holds nothing, in a sentence with a way out', async () => {
  expect((await sable('strength', bar)).stderr).toMatch(
    /not said where .* Give --hold, --load and --force, or --as bend:y\. The part reaches from -2\d\.\d/,
  )
  expect((await sable('strength', bar, '--hold', '1,2:3')).stderr).toMatch(/"1,2:3" is not a box\..*-25,-5,0:-20,5,9/s)
  expect((await sable('strength', bar, '--as', 'twist:x')).stderr).toMatch(/"twist:x" is no load/)
  expect((await sable('strength', bar, '--hold', '90,0,0:99,9,9', '--load', '20,-5,-1:26,5,7', '--force', '1,0,0')).stderr).toMatch(
    /Nothing of the part is held/,
  )
})
