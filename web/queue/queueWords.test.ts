import type { PrintLine } from '@sable/contract/prints'
import { type QueueContent, type QueueJob, queueSchema } from '@sable/contract/queues'
import type { PlannedItem } from '@sable/core/queue/plan'
import { describe, expect, it } from 'vitest'
import { plateWith } from './plateWith'
import { jobOf } from './putIntoQueue'
import { reasonsBetween, touchedJobs } from './reasons'
import { movedTo } from './useMoves'
import { inWords } from './WhatMoved'

const printerName = (key: string): string => key.toUpperCase()
const print = '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a02'
const tray = jobOf([], 'tray', 2)
const content = (job: Partial<QueueJob> = {}, more: Partial<QueueContent> = {}): QueueContent => ({
  ...queueSchema.parse({ name: 'fair', machines: [{ printer: 'dory' }] }),
  jobs: [{ ...tray, ...job }],
  ...more,
})
const line = (state: PrintLine['state'], id = print): [string, PrintLine] => [id, { id, state, printer: 'dory' } as PrintLine]
const why = (before: QueueContent, after: QueueContent, was: [string, PrintLine][] = [], is = was): string[] =>
  reasonsBetween({ content: before, lines: new Map(was) }, { content: after, lines: new Map(is) }, printerName)

describe('why a plan is another', () => {
  it('is nothing where only time went on', () => {
    expect(why(content(), content())).toEqual([])
  })

  it('is what the log tells of prints, a plate of two as well', () => {
    const begun = content({ prints: [print], onPlate: { [print]: 2 } })
    expect(why(begun, begun, [line('running')], [line('spoiled')])).toEqual(['tray failed'])
    expect(why(begun, begun, [line('running')], [line('good')])).toEqual(['tray is done'])
    expect(why(content(), begun, [], [line('running')])).toEqual(['tray was begun'])
  })

  it('is what somebody said of a job, of machines, hours and reels', () => {
    expect(why(content(), content({ copies: 5 }))).toEqual(['tray is wanted 5 times'])
    expect(why(content(), content({ heldTo: 'dory' }))).toEqual(['tray is held to DORY'])
    expect(why(content(), content({ notBefore: '2026-11-28T18:00:00Z', plates: true }))).toEqual([
      'tray is put off',
      'copies of tray share plates',
    ])
    const away = content({}, { machines: content().machines.map((one) => ({ ...one, away: true })) })
    expect(why(content(), away)).toEqual(['DORY is away'])
    expect(why(away, content())).toEqual(['DORY is back'])
    expect(why(content(), content({}, { quiet: { from: '22:00', to: '07:00' } }))).toEqual(['quiet hours are 22:00 to 07:00'])
    expect(why(content(), content({}, { jobs: [] }))).toEqual(['tray is out'])
    expect(why(content(), content({}, { reels: [{ spool: 'storm', useUp: true }] }))).toEqual(['reels are used in another way'])
  })
})

it('what was touched is a job of which something was said, or that the log tells of; not what that pushed', () => {
  const lamp = { ...tray, id: '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a05', name: 'lamp', prints: [print] }
  const before = { content: content({}, { jobs: [tray, lamp] }), lines: new Map([line('running')]) }
  const touched = (jobs: QueueJob[], lines = before.lines) => [...touchedJobs(before, { content: content({}, { jobs }), lines })]
  expect(touched([tray, lamp])).toEqual([])
  expect(touched([{ ...tray, notBefore: '2026-11-28T18:00:00Z' }, lamp])).toEqual([tray.id])
  expect(touched([tray, lamp], new Map([line('good')]))).toEqual([lamp.id])
})

it('what moved is told as a sentence', () => {
  const told = (moved: Partial<Parameters<typeof inWords>[0]>): string =>
    inWords({ job: 'j', from: ['p'], to: ['p'], ...moved }, printerName)
  expect(told({ laterBy: 125 })).toBe('ends 2 h 05 min later.')
  expect(told({ to: ['q'], laterBy: -60, late: 'no longer' })).toBe('goes to Q instead of P, ends 1 h earlier, is in time again.')
  expect(told({ laterBy: 30, late: 'now' })).toBe('ends 30 min later, misses its hour.')
  expect(told({ from: [], isNew: true })).toBe('goes to P.')
  expect(told({ to: [], isRefused: true })).toMatch(/cannot be printed/)
})

describe('a bar that is moved', () => {
  const now = new Date('2026-11-28T08:00:00Z')
  const item = { of: tray.id, copy: 0, on: 'dory', startsAt: 60, endsAt: 160 } as PlannedItem

  it('to the right puts its job off until there, and takes an earlier wish back', () => {
    const moved = movedTo({ ...tray, wishedBy: '2026-11-28T09:00:00.000Z' }, item, 120, now)
    expect([moved.notBefore, moved.wishedBy]).toEqual(['2026-11-28T10:00:00.000Z', undefined])
  })

  it('to the left wishes for its end earlier by as much, and takes what forbids it back', () => {
    const moved = movedTo({ ...tray, notBefore: '2026-11-28T09:00:00.000Z' }, item, 0, now)
    expect([moved.notBefore, moved.wishedBy]).toEqual([undefined, '2026-11-28T09:40:00.000Z'])
  })

  it('knows which copies share its plate', () => {
    const on = (copy: number, startsAt: number, more: object = {}) => ({ ...item, copy, startsAt, ...more }) as PlannedItem
    const items = [on(0, 0), on(1, 60), on(2, 120, { isOnPlate: true }), on(3, 180, { isOnPlate: true }), on(4, 240)]
    const copies = (of: number): number[] => plateWith(items[of]!, { items }).map(({ copy }) => copy)
    expect([copies(0), copies(1), copies(3), copies(4)]).toEqual([[0], [1, 2, 3], [1, 2, 3], [4]])
  })
})
