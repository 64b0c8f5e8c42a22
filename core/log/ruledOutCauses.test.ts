import { describe, expect, it } from 'vitest'
import { faultCaseSchema } from '../faults/case'
import type { Scene } from '../faults/spec/scene'
import { settingsOf, setupOf } from '../testing/setups'
import { type RuledOut, ruledOutBook } from './ruledOutBook'
import { askedByCase, ruledOutByLog } from './ruledOutCauses'

const place = { printer: 'lugger', spool: 'storm' }
const scene = {
  setup: setupOf(),
  settings: settingsOf({ nozzleTemperature: 205, retractLength: 0.8 }),
  prediction: { melt: {} },
} as unknown as Scene
const out = (label: string, was: string, is: string, more: Partial<RuledOut> = {}): RuledOut => ({
  fault: 'strings',
  ...place,
  label,
  was,
  is,
  times: 1,
  questions: ['Which pull?'],
  ...more,
})
const causesBy = (book: readonly RuledOut[]): string[] => ruledOutByLog('strings', place, book, scene).map(({ cause }) => cause)

describe('what the log ruled out', () => {
  it('is a try of the cause for which one would change the same thing the same way', () => {
    expect(causesBy([out('Nozzle temperature', '210 °C', '200 °C')])).toEqual(['hot'])
    expect(causesBy([out('Nozzle temperature', '200 °C', '210 °C')])).toEqual([])
    expect(causesBy([out('reel', 'likely wet', 'dry')])).toEqual(['wet'])
    expect(ruledOutByLog('strings', place, [out('Nozzle temperature', '210 °C', '200 °C')], scene)).toEqual([
      { cause: 'hot', did: 'same', elsewhere: 'Which pull?' },
    ])
  })

  it('says nothing of another fault, machine or reel', () => {
    for (const more of [{ fault: 'waves' }, { printer: 'dory' }, { spool: 'fog' }])
      expect(causesBy([out('Nozzle temperature', '210 °C', '200 °C', more)])).toEqual([])
  })
})

describe('a case in the log’s book', () => {
  it('has there what one change did nothing for, and neither what helped nor what was changed with more', () => {
    const one = faultCaseSchema.parse({
      fault: 'strings',
      tries: [
        { cause: 'hot', words: 'Print 5 °C cooler', change: { nozzleTemperature: 200 }, was: { nozzleTemperature: 205 }, did: 'same' },
        { cause: 'noWipe', words: 'Wipe 1 mm', change: { wipeLength: 1 }, was: { wipeLength: 0 }, did: 'fixed' },
        { cause: 'travelSlow', words: 'Travel a half faster', change: { travelSpeed: 300 }, did: 'same', mixed: true },
        { cause: 'wet', words: 'Dry the reel', did: 'same' },
      ],
    })
    const book = ruledOutBook([askedByCase({ ...one, partName: 'shade', candidate: place })])
    expect(book).toEqual([
      {
        fault: 'Strings',
        ...place,
        label: 'Nozzle temperature',
        was: '205 °C',
        is: '200 °C',
        times: 1,
        questions: ['the case of shade'],
      },
    ])
    // Cases hear it from each other: from the book it would count twice, unless an experiment says so as well.
    expect(causesBy(book)).toEqual([])
    expect(causesBy([{ ...book[0]!, fault: 'strings', questions: ['the case of shade', 'Which heat?'] }])).toEqual(['hot'])
  })
})
