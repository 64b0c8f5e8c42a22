import { describe, expect, it } from 'vitest'
import { caseMarkdown, faultCaseSchema, keepableOf, toldByOthers, triedOf } from './case'

describe('a case', () => {
  it('says nothing of a cause by a try that is not told of, or with which more was changed', () => {
    const one = faultCaseSchema.parse({
      fault: 'gaps',
      tries: [
        { cause: 'cold', words: 'Print 5 °C hotter', did: 'same' },
        { cause: 'flowOver', words: 'Hold the flow a fifth lower' },
        { cause: 'partialClog', words: 'Pull it cold', did: 'fixed', mixed: true },
      ],
    })
    expect(triedOf(one)).toEqual([{ cause: 'cold', words: 'Print 5 °C hotter', did: 'same', times: 1 }])
  })

  it('is spared what another one of its fault has ruled out, and not what helped there', () => {
    const other = faultCaseSchema.parse({
      fault: 'gaps',
      tries: [
        { cause: 'cold', words: 'Print 5 °C hotter', did: 'worse' },
        { cause: 'flowOver', words: 'Hold the flow a fifth lower', did: 'better' },
      ],
    })
    const here = { fault: 'gaps', candidate: { printer: 'dory', spool: 'fog' } } as const
    const there = { ...other, partName: 'shade', candidate: here.candidate }
    const worse = { cause: 'cold', words: 'Print 5 °C hotter', did: 'worse', times: 1, elsewhere: 'shade' }
    expect(toldByOthers(here, [there])).toEqual([worse])
    expect(toldByOthers(here, [{ ...there, fault: 'strings' }])).toEqual([])
    expect(toldByOthers(here, [{ ...there, candidate: { printer: 'dory', spool: 'storm' } }])).toEqual([])
    expect(toldByOthers({ ...here, fault: 'gaps' }, [{ ...there, candidate: { printer: 'lugger', spool: 'fog' } }])).toEqual([])
  })

  it('hears what another one came to: of the reel on any machine, of the machine with any reel', () => {
    const here = { fault: 'gaps', candidate: { printer: 'dory', spool: 'fog' } } as const
    const solved = (found: string, printer: string, spool: string) => ({
      ...faultCaseSchema.parse({ fault: 'gaps', closed: 'That was it.', found }),
      partName: 'shade',
      candidate: { printer, spool },
    })
    const heard = (cause: string) => [{ cause, did: 'fixed', elsewhere: 'shade' }]
    expect(toldByOthers(here, [solved('otherSpool', 'lugger', 'fog')])).toEqual(heard('otherSpool'))
    expect(toldByOthers(here, [solved('otherSpool', 'dory', 'storm')])).toEqual([])
    expect(toldByOthers(here, [solved('partialClog', 'dory', 'storm')])).toEqual(heard('partialClog'))
    expect(toldByOthers(here, [solved('partialClog', 'lugger', 'fog')])).toEqual([])
    const { closed: _, ...open } = solved('partialClog', 'dory', 'storm')
    expect(toldByOthers(here, [open])).toEqual([])
  })

  it('keeps what helped on the layer to which it belongs, the last word on each setting', () => {
    const tries = faultCaseSchema.parse({
      fault: 'splitBand',
      tries: [
        { cause: 'bedWarmthGone', words: 'Print 5 °C hotter', change: { nozzleTemperature: 210 }, did: 'better' },
        {
          cause: 'bedWarmthGone',
          words: 'Print 10 °C hotter, several times: it comes and goes',
          change: { nozzleTemperature: 215 },
          did: 'fixed',
          times: 3,
        },
        { cause: 'flowOver', words: 'Half the flow', change: { flowLimit: 5 }, did: 'better' },
        { cause: 'fanStrong', words: 'Half the fan', change: { fanSpeed: 50 }, did: 'same' },
        { cause: 'fanStrong', words: 'Half the fan', change: { fanSpeed: 40 }, did: 'fixed', mixed: true },
      ],
    })
    expect(keepableOf(tries)).toEqual([
      { keeps: 'spool', values: { nozzleTemperature: 215 } },
      { keeps: 'profile', values: { flowLimit: 5 } },
    ])
  })

  it('of no fault, or at no height, is refused', () => {
    expect(faultCaseSchema.safeParse({ fault: 'ghosts' }).success).toBe(false)
    expect(faultCaseSchema.safeParse({ fault: 'gaps', atZ: -1 }).success).toBe(false)
  })

  it('is a page with what was seen, answered, tried and found', () => {
    const one = faultCaseSchema.parse({
      fault: 'splitBand',
      note: 'Right round.',
      atZ: 17,
      answers: { smallParts: 'yes' },
      tries: [{ cause: 'cold', words: 'Print 5 °C hotter', did: 'fixed', times: 3 }],
      closed: 'Too cold for the pace.',
    })
    expect(caseMarkdown(one, 'battery tray, tonight', [])).toBe(
      [
        '# A band of split layers: battery tray, tonight',
        '',
        'Some layers in a row are thin or open, with sound ones below and above. Seen at 17 mm.',
        '',
        'Right round.',
        '',
        '- Do small parts come out well from the same reel? yes',
        '',
        '| tried | for | it was |',
        '|---|---|---|',
        '| Print 5 °C hotter | cold | gone, 3 prints in a row |',
        '',
        '## Causes',
        '',
        '',
        '**Found:** Too cold for the pace.',
        '',
      ].join('\n'),
    )
  })
})
