import { starterPrinters } from '@sable/core/shelf/starter'
import { describe, expect, it } from 'vitest'
import { plateOfCopies, platesOf } from './plates'
import type { FrozenPrint, PrintLine } from './prints'
import { quietFrom } from './queueHours'
import { type Around, queueNow, type Reel } from './queueNow'
import { type QueueContent, queueSchema } from './queues'
import { hourVariants } from './queueVariants'

const now = new Date(2026, 10, 28, 10, 0)
const way = (more: object = {}): FrozenPrint =>
  ({
    name: 'tray',
    printer: 'lugger',
    nozzle: 'bore-0.4',
    material: 'pla',
    spool: 'black',
    profile: 'quick',
    values: {},
    resolved: { copyGap: { value: 8, origin: 'default' } },
    foretold: {
      timeS: 3600,
      startS: 300,
      massG: 40,
      cost: 1,
      heightMm: 20,
      sizeMm: [60, 40, 20],
      spreads: { time: 0.03, filament: 0.02 },
      reach: { time: 1.2816, filament: 1.2816 },
      figures: [
        { id: 'time', label: 'Time', value: 3600, text: '1 h 00', unit: 'min', low: 3500, high: 3700 },
        { id: 'filament', label: 'Filament', value: 40, text: '40.0', unit: 'g', low: 39, high: 41 },
        { id: 'strength', label: 'Strength', value: 300, text: '300', unit: 'N', low: 250, high: 350 },
      ],
    },
    ...more,
  }) as unknown as FrozenPrint
const content = (job: object = {}, more: object = {}): QueueContent => ({
  ...queueSchema.parse({ name: 'fair', machines: [{ printer: 'lugger' }], ...more }),
  jobs: [
    {
      id: 'j',
      name: 'tray',
      copies: 4,
      ways: [way()],
      reel: 'own',
      plates: false,
      prints: [],
      onPlate: {},
      ...job,
    } as QueueContent['jobs'][number],
  ],
})
const reel = (key: string, more: Partial<Reel> = {}): Reel => ({ key, material: 'pla', color: '#000000', grams: 500, doubtG: 20, ...more })
const around: Around = {
  lines: new Map(),
  reels: [reel('black'), reel('black 2'), reel('red', { color: '#ff0000' }), reel('petg', { material: 'petg' })],
  printers: starterPrinters,
}

describe('a job that may be printed off other reels', () => {
  const reels = (choice: string): (string | undefined)[] =>
    queueNow(content({ reel: choice }), around, now).jobs[0]!.options.map(({ spool }) => spool)

  it('has a way for each of its colour, or of its material, its own the first', () => {
    expect(reels('own')).toEqual(['black'])
    expect(reels('alike')).toEqual(['black', 'black 2'])
    expect(reels('any')).toEqual(['black', 'black 2', 'red'])
  })

  it('tells the scheduler of the reels that follow one another, also of those that nothing else wants', () => {
    const { spools } = queueNow(content({}, { reels: [{ spool: 'black', useUp: true, followedBy: 'black 2' }] }), around, now)
    expect(spools).toEqual([
      { key: 'black', grams: 500, doubtG: 20, useUp: true, followedBy: 'black 2' },
      { key: 'black 2', grams: 500, doubtG: 20 },
    ])
  })
})

describe('copies on a plate', () => {
  it('go onto it only where that is asked for, as many as the printer holds', () => {
    const lugger = starterPrinters.find(({ key }) => key === 'lugger')!
    const { most } = platesOf(way(), lugger)
    expect(most).toBeGreaterThan(3)
    expect(queueNow(content({ plates: true }), around, now).jobs[0]!.options[0]).toMatchObject({ perPlate: most, startMinutes: 5 })
    expect(queueNow(content(), around, now).jobs[0]!.options[0]!.perPlate).toBeUndefined()
    // A way that has several copies already is a plate of its own, and of an unknown head nothing is risked.
    expect(platesOf(way({ resolved: { copies: { value: 3, origin: 'profile' } } }), lugger).most).toBe(1)
    const { clearance: _, ...untold } = lugger
    expect(platesOf(way(), untold).most).toBe(1)
  })

  it('of one print of the log all run, all are done, or all failed', () => {
    const print = '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a02'
    const left = (state: PrintLine['state']): number => {
      const line = { id: print, state, printer: 'lugger', startedAt: now.toISOString(), timeS: 100 } as PrintLine
      const at = { ...around, lines: new Map([[print, line]]) }
      return queueNow(content({ prints: [print], onPlate: { [print]: 3 } }), at, now).jobs[0]!.copies
    }
    expect([left('running'), left('good'), left('spoiled')]).toEqual([1, 1, 4])
  })

  it('are foretold as often one copy, with one start; what is told of each copy stays', () => {
    const three = plateOfCopies(way(), 3, 12)
    expect(three.values).toMatchObject({ copies: 3, copyOrder: 'oneAtATime', copyGap: 12 })
    expect([three.foretold.timeS, three.foretold.startS, three.foretold.massG]).toEqual([10_800, 300, 120])
    expect(three.foretold.figures.map(({ id, value, text }) => [id, value, text])).toEqual([
      ['time', 10_800, '3 h 00'],
      ['filament', 120, '120.0'],
      ['strength', 300, '300'],
    ])
    expect(plateOfCopies(way(), 1, 12)).toEqual(way())
  })
})

describe('quiet hours', () => {
  it('reach over midnight, those of the night that is not over as well', () => {
    const [first, second] = quietFrom({ from: '22:00', to: '07:00' }, now)
    expect([first, second]).toEqual([
      { from: 12 * 60, to: 21 * 60 },
      { from: 36 * 60, to: 45 * 60 },
    ])
    expect(quietFrom({ from: '22:00', to: '07:00' }, new Date(2026, 10, 28, 5, 0))[0]).toEqual({ from: 0, to: 120 })
    expect(quietFrom({ from: '12:00', to: '14:00' }, now)[0]).toEqual({ from: 120, to: 240 })
  })

  it('are tried where there are none, and left out where there are some', () => {
    const there = { from: '08:00', to: '20:00' }
    const loud = queueNow(content(), around, now)
    expect(hourVariants(loud, there, now).map(({ id, queue }) => [id, queue.quiet?.length ?? 0])).toEqual([
      ['hours', 0],
      ['quiet', 21],
    ])
    const still = queueNow(content({}, { quiet: { from: '22:00', to: '07:00' } }), around, now)
    expect(hourVariants(still, { from: '20:00', to: '08:00' }, now).map(({ id, queue }) => [id, queue.quiet])).toEqual([
      ['loud', undefined],
    ])
  })
})
