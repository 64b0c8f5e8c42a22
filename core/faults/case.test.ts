import { describe, expect, it } from 'vitest'
import { caseMarkdown, faultCaseSchema, ruledOutElsewhere, triedOf } from './case'

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
    expect(triedOf(one)).toEqual([{ cause: 'cold', did: 'same', times: 1 }])
  })

  it('is spared what another one of its fault has ruled out, and not what helped there', () => {
    const other = faultCaseSchema.parse({
      fault: 'gaps',
      tries: [
        { cause: 'cold', words: 'Print 5 °C hotter', did: 'worse' },
        { cause: 'flowOver', words: 'Hold the flow a fifth lower', did: 'better' },
      ],
    })
    expect(ruledOutElsewhere([{ ...other, partName: 'shade' }])).toEqual([{ cause: 'cold', did: 'worse', times: 1, elsewhere: 'shade' }])
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
