import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sable } from './testing'

let folder: string
let model: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'sable-fault-'))
  model = join(folder, 'block.stl')
  writeFileSync(model, writeStl(blockMesh(24, 16, 12)))
})
afterAll(() => rmSync(folder, { recursive: true }))

describe('sable fault', () => {
  it('ranks causes by evidence from the very print, asks one thing and tries one thing', async () => {
    const found = (await sable('fault', 'clicking', model, '--at', '6', '--set', 'pushBackSpeed=70', '--json')).json()
    expect(found.causes.map(({ odds }: { odds: number }) => odds)).toEqual(
      [...found.causes.map(({ odds }: { odds: number }) => odds)].sort((a: number, b: number) => b - a),
    )
    const pushed = found.causes.find(({ id }: { id: string }) => id === 'pushBackFast')
    expect(pushed.evidence).toContainEqual({ what: 'push-back 70 mm/s', factor: 8, basis: 'CP-R4, common practice: 30 mm/s at most' })
    expect(found.ask.bits).toBeGreaterThan(0)
    expect(Object.keys(found.ask.answers).length).toBeGreaterThan(1)

    const answered = (
      await sable('fault', 'clicking', model, '--at', '6', '--set', 'pushBackSpeed=70', '--answer', 'sound=clicking', '--json')
    ).json()
    expect(answered.causes[0].id).toBe('pushBackFast')
    expect(answered.next).toMatchObject({ cause: 'pushBackFast', change: { pushBackSpeed: 25 } })
    expect(answered.ask?.id).not.toBe('sound')
  })

  it('does not offer again what was ruled out, and tells it in words for people', async () => {
    const { stdout } = await sable('fault', 'clicking', model, '--set', 'pushBackSpeed=70', '--tried', 'pushBackFast=same')
    expect(stdout).toMatch(/Filament is pushed back too fast \(ruled out\)/)
    expect(stdout).toMatch(/×0\.09 {2}a change for it did nothing \(assumed\)/)
    expect(stdout).not.toMatch(/^Next: .*pushed back too fast/m)
    expect(stdout).toMatch(/^Next: /m)
  })

  it('warns where a remedy can hurt', async () => {
    const { json } = await sable('fault', 'loose', model, '--answer', 'firstLayer=flat', '--answer', 'before=until', '--json')
    expect(json().next).toMatchObject({ cause: 'bedDirty', caution: expect.stringMatching(/Solvents burn/) })
  })

  it.each([
    [['nonsense'], '<kind>: There is no fault "nonsense". Choose one of strings'],
    [['gaps', '--at', '40'], '--at: 40 mm is not between the bed and the top of the print. Give a height from 0 to 12.0 mm.'],
    [['gaps', '--answer', 'weather=fine'], '--answer: There is no question "weather".'],
    [['gaps', '--answer', 'sound=loud'], '--answer: "loud" does not answer "What was heard?"'],
    [['gaps', '--tried', 'wet=same'], '--tried: "wet=same" names no cause of this fault.'],
    [['gaps', '--tried', 'cold=gone'], '--tried: "cold=gone" does not tell what came of it.'],
  ])('%s is refused with its place', async ([kind, ...rest], told) => {
    const { status, stderr } = await sable('fault', kind!, model, ...rest)
    expect(status).not.toBe(0)
    expect(stderr).toContain(told)
  })
})
