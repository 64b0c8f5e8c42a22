import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sable } from './testing'

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'sable-queue-'))
  writeFileSync(join(folder, 'block.stl'), writeStl(blockMesh(24, 16, 12)))
})
afterAll(() => rmSync(folder, { recursive: true }))

const now = '2026-11-28T08:00:00Z'
const fileOf = (more: object): string => {
  const path = join(folder, `${Math.random().toString(36).slice(2)}.json`)
  writeFileSync(path, JSON.stringify({ now, printers: [{ key: 'dory' }, { key: 'lugger' }], jobs: [], ...more }))
  return path
}
const ask = async (more: object) => (await sable('queue', fileOf(more), '--json')).json()

describe('sable queue', () => {
  it('places every copy on a lane, tells the end and what nobody can beat', async () => {
    const found = await ask({
      jobs: [
        { id: 'hook', minutes: 60, copies: 3 },
        { id: 'tray', minutes: 120, printers: ['dory'], deadline: '2026-11-28T10:00:00Z' },
      ],
    })
    expect(found).toMatchObject({ makespanMinutes: 180, late: [], refused: [] })
    expect(found.lowerBoundMinutes).toBeLessThanOrEqual(180)
    expect(found.lanes.map(({ printer }: { printer: string }) => printer)).toEqual(['dory', 'lugger'])
    const items = found.lanes.flatMap(({ items: own }: { items: object[] }) => own)
    expect(items).toHaveLength(4)
    expect(items).toContainEqual(
      expect.objectContaining({ job: 'tray', copy: 1, startsAt: '2026-11-28T08:00:00.000Z', endsAt: '2026-11-28T10:00:00.000Z' }),
    )
  })

  it('starts nothing while nobody is there, and says what is late or cannot be', async () => {
    const found = await ask({
      printers: [{ key: 'dory', changeMinutes: 10 }],
      presence: [
        { from: '2026-11-28T08:00:00Z', to: '2026-11-28T09:00:00Z' },
        { from: '2026-11-28T20:00:00+01:00', to: '2026-11-28T21:00:00+01:00' },
      ],
      jobs: [
        { id: 'long', minutes: 90 },
        { id: 'second', minutes: 90, deadline: '2026-11-28T18:00:00Z' },
        { id: 'third', minutes: 300, deadline: '2026-11-28T12:00:00Z' },
        { id: 'elsewhere', minutes: 10, printers: ['cutter'] },
      ],
    })
    const starts = found.lanes[0].items.map(({ startsAt }: { startsAt: string }) => startsAt)
    expect(starts[0]).toBe('2026-11-28T08:00:00.000Z')
    expect(starts[1]).toBe('2026-11-28T19:10:00.000Z')
    expect(found.refused.map(({ job }: { job: string }) => job)).toContain('elsewhere')
    expect(found.late.length + found.refused.length).toBeGreaterThan(1)
  })

  it('foretells a part with its profile on each printer', async () => {
    const found = await ask({ jobs: [{ id: 'block', part: 'block.stl' }] })
    const alone = (
      await sable('predict', join(folder, 'block.stl'), '--printer', found.lanes[0].items.length > 0 ? 'dory' : 'lugger', '--json')
    ).json()
    expect(found.makespanMinutes).toBeCloseTo(alone.timeS / 60, 3)
  })

  it('tells in words for people, with ranges and reels', async () => {
    const { stdout } = await sable(
      'queue',
      fileOf({
        spools: [{ key: 'storm', grams: 90 }],
        jobs: [{ id: 'hook', minutes: 60, low: 50, high: 70, copies: 2, grams: 50, spool: 'storm', deadline: '2026-11-28T09:00:00Z' }],
      }),
    )
    expect(stdout).toMatch(/hook \(copy 2\), ends .* late in \d+ of 100/)
    expect(stdout).toMatch(/storm: 100 g are used, it runs out at hook/)
    expect(stdout).toMatch(/^Late: hook\.$/m)
  })

  it.each([
    [{ jobs: [{ id: 'a' }] }, /jobs\.0.*either "minutes" or "part"/],
    [
      {
        jobs: [
          { id: 'a', minutes: 1 },
          { id: 'a', minutes: 1 },
        ],
      },
      /same id/,
    ],
    [{ printers: [] }, /printers/],
    [{ now: 'yesterday' }, /now/],
    [{ presence: [{ from: '2026-11-28T09:00:00Z', to: '2026-11-28T08:00:00Z' }] }, /presence\.0.*ends before it begins/],
    [{ jobs: [{ id: 'a', part: 'none.stl' }] }, /no such file/],
  ])('refuses %j with its place', async (more, words) => {
    const { status, stderr } = await sable('queue', fileOf(more))
    expect(status).toBe(1)
    expect(stderr).toMatch(words)
  })
})
