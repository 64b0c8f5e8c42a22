import { describe, expect, it } from 'vitest'
import { asMarkdown, confirmed, experimentSchema, ruledOut, type TriedPrint, toldTries } from './experiment'

const ids = ['1', '2', '3', '4', '5'].map((digit) => `${digit}f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a0${digit}`)
const print = (i: number, retractLength: number, nozzleTemperature: number): TriedPrint => ({
  id: ids[i]!,
  name: 'shade',
  at: `2026-10-1${i}T09:00:00.000Z`,
  printer: 'cutter',
  nozzle: 'bore-0.4',
  material: 'petg',
  resolved: { retractLength: { value: retractLength }, nozzleTemperature: { value: nozzleTemperature } },
})
const prints = [print(0, 0.8, 240), print(1, 1.4, 240), print(2, 1.4, 230), print(3, 0.8, 240), print(4, 0.8, 230)]
const experiment = experimentSchema.parse({
  question: 'Why does the shade string?',
  fault: 'strings across the vents',
  tries: [
    { print: ids[0] },
    { print: ids[1], did: 'same' },
    { print: ids[2], did: 'helped' },
    { print: ids[3], did: 'worse' },
    { print: ids[4], did: 'helped' },
  ],
  verdict: 'It was too hot.',
})
const tries = toldTries(experiment, prints)

describe('an experiment', () => {
  it('tells of each try what was changed since the one before', () => {
    expect(tries.map(({ changed }) => changed.length)).toEqual([0, 1, 1, 2, 1])
    expect(tries[1]!.changed[0]).toMatchObject({ was: '0.8 mm', is: '1.4 mm' })
  })

  it('rules out a single change that did nothing, and nothing where two were changed at once', () => {
    expect(ruledOut(tries).map(({ is }) => is)).toEqual(['1.4 mm'])
  })

  it('counts how often the same change helped', () => {
    expect(confirmed(tries)).toMatchObject([{ change: { was: '240 °C', is: '230 °C' }, times: 2 }])
  })

  it('is passed on as a page', () => {
    const page = asMarkdown(experiment, tries)
    expect(page).toContain('# Why does the shade string?')
    expect(page).toMatch(/\| 2 \| shade, 2026-10-11 \| .*0\.8 mm → 1\.4 mm \| did nothing \|/)
    expect(page).toContain('helped 2 times')
    expect(page).toContain('**Verdict:** It was too hot.')
  })

  it('leaves prints out that are gone', () => {
    expect(toldTries(experiment, prints.slice(1))).toHaveLength(4)
  })
})
