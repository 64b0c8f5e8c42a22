import { describe, expect, it } from 'vitest'
import type { ToldTry } from './experiment'
import { ruledOutBook, sameFault } from './ruledOutBook'
import { trailOf } from './trail'

const made = (values: Record<string, number>, spool = 'amber') => ({
  printer: 'dory',
  nozzle: 'bore-0.4',
  material: 'petg',
  spool,
  resolved: Object.fromEntries(Object.entries(values).map(([name, value]) => [name, { value }])),
})

describe('the trail of a part', () => {
  const [a, b, c] = [
    { id: 'a', made: made({ layerHeight: 0.2 }), marks: {}, against: undefined },
    { id: 'b', made: made({ layerHeight: 0.28 }), marks: { sides: 4, top: 3 }, against: { print: 'a', verdict: 'worse' as const } },
    { id: 'c', made: made({ layerHeight: 0.28, wallCount: 3 }), marks: { sides: 5 }, against: { print: 'a', verdict: 'better' as const } },
  ]

  it('tells of each print what was changed since the one before, its mark, and its verdict where that was said against that one', () => {
    const steps = trailOf([a!, b!, c!])
    expect(steps.map(({ changed }) => changed.length)).toEqual([0, 1, 1])
    expect(steps[1]).toMatchObject({ changed: [{ label: 'Layer height', was: '0.2 mm', is: '0.28 mm' }], mark: 3.5, verdict: 'worse' })
    // Held against another print than the one before: no step of this trail.
    expect(steps[2]).toMatchObject({ mark: 5, verdict: undefined })
    expect(trailOf([])).toEqual([])
  })
})

describe('what is ruled out', () => {
  const change = { label: 'Retraction', was: '0.4 mm', is: '0.8 mm' }
  const one = (more: Partial<ToldTry> = {}): ToldTry => ({
    print: 'a',
    name: 'finial',
    at: '2026-03-01',
    printer: 'dory',
    spool: 'amber',
    did: 'same',
    note: '',
    changed: [change],
    ...more,
  })
  const asked = (tries: ToldTry[], fault = 'strings') => ({ question: `why ${fault}?`, fault, tries })

  it('is kept by fault, printer and reel, and counted', () => {
    const book = ruledOutBook([
      asked([one(), one({ did: 'worse' })]),
      asked([one({ spool: 'jade' })], ' Strings '),
      asked([one({ printer: 'lugger' })]),
    ])
    expect(book.map(({ spool, printer, times }) => [printer, spool, times])).toEqual([
      ['dory', 'amber', 2],
      ['dory', 'jade', 1],
      ['lugger', 'amber', 1],
    ])
    expect(sameFault(book[0]!.fault, book[1]!.fault)).toBe(true)
  })

  it('is nothing that changed two things at once, nothing that helped once, and nothing of a question without a fault', () => {
    expect(ruledOutBook([asked([one({ changed: [change, { ...change, label: 'Wipe' }] })])])).toEqual([])
    expect(ruledOutBook([asked([one()]), asked([one({ did: 'helped' })])])).toEqual([])
    expect(ruledOutBook([asked([one()], ' ')])).toEqual([])
  })
})
