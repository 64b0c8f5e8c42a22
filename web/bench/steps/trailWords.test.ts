import { describe, expect, it } from 'vitest'
import { measures } from './measures'
import { trailCsv, trailSentence } from './trailWords'
import type { Trail } from './useTrail'

const words = new Map([
  ['walls', { what: 'walls', from: '3', to: '4', unit: '' }],
  ['height', { what: 'layer height', from: '0.2', to: '0.28', unit: 'mm' }],
])
const trail = (values: (number | undefined)[]) =>
  ({
    from: { name: 'everyday' },
    to: { name: 'sturdy' },
    words,
    taken: [{ id: 'height' }, { id: 'walls' }],
    values,
    predictions: values.map(() => undefined),
    measure: measures.find(({ id }) => id === 'time')!,
  }) as unknown as Trail

describe('a trail in words', () => {
  it('tells both ends and what each step did', () => {
    expect(trailSentence(trail([3600, 2400, 3000]))).toBe(
      'From 1 h to 50 min: layer height 0.2 to 0.28 mm (−20.0 min), walls 3 to 4 (+10.0 min).',
    )
  })

  it('leaves out what is not known in the middle or does not show', () => {
    expect(trailSentence(trail([3600, undefined, 3000]))).toBe('From 1 h to 50 min: layer height 0.2 to 0.28 mm, walls 3 to 4.')
    expect(trailSentence(trail([3600, 3600, 3000]))).toContain('layer height 0.2 to 0.28 mm, walls')
  })

  it('says nothing until both ends are known', () => {
    expect(trailSentence(trail([undefined, 2400, 3000]))).toBeUndefined()
    expect(trailSentence(trail([3600, 2400, undefined]))).toBeUndefined()
  })

  it('is a table with a row for the beginning and one a step', () => {
    const rows = trailCsv(trail([3600, 2400, 3000]))
      .trim()
      .split(/\r?\n/)
      .map((row) => row.split(',').slice(0, 3).join(','))
    expect(rows).toEqual(['Step,from,to', 'everyday,,', 'layer height,0.2,0.28', 'walls,3,4'])
  })
})
