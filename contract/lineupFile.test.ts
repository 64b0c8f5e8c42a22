import { noPurpose } from '@sable/core/physics/strength/purpose'
import { InputError } from '@sable/core/units/errors'
import { describe, expect, it } from 'vitest'
import type { LineupContent } from './lineup'
import { readLineupFile, writeLineupFile } from './lineupFile'

const content: LineupContent = {
  name: 'Hook',
  partId: '2b1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a10',
  placement: { scale: 2, rotateDeg: [90, 0, 0] },
  purpose: { ...noPurpose, kind: 'load', seen: 'top', load: { ...noPurpose.load, kind: 'crush', axis: 'z' }, limits: { minLoadN: 300 } },
  candidates: [
    {
      id: '7c1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a11',
      name: 'sturdy',
      printer: 'lugger',
      nozzle: 'bore-0.4',
      material: 'pla',
      values: { wallCount: 5, infillPattern: 'lines' },
      overrides: [{ name: 'top', fromZ: 4, speedPercent: 60, values: { fanSpeed: 100 } }],
    },
  ],
}
const part = { name: 'hook', contentKey: 'a'.repeat(64) }

const refusalOf = (text: string): InputError => {
  try {
    readLineupFile(text, 'mine.json')
  } catch (error) {
    if (error instanceof InputError) return error
    throw error
  }
  throw new Error('was read')
}

describe('lineup files', () => {
  it('come back as they were written, without ids', () => {
    const read = readLineupFile(writeLineupFile(content, part), 'x.json')
    expect(read).toMatchObject({ name: 'Hook', part, placement: content.placement, purpose: content.purpose })
    const [{ id: _, values, ...rest }] = content.candidates as [LineupContent['candidates'][number]]
    expect(read.candidates).toEqual([{ ...rest, settings: values }])
  })

  it('name the candidate and the setting that cannot be read', () => {
    const bad = JSON.parse(writeLineupFile(content, part))
    bad.candidates[0].settings.wallCount = 1000
    expect(refusalOf(JSON.stringify(bad))).toMatchObject({
      code: 'setting-out-of-range',
      where: 'mine.json, candidate "sturdy", wallCount',
    })
  })

  it('are refused when they are of another version or lack a field', () => {
    const file = JSON.parse(writeLineupFile(content, part))
    expect(refusalOf(JSON.stringify({ ...file, version: 9 })).code).toBe('file-other-version')
    expect(refusalOf(JSON.stringify({ ...file, candidates: [{ name: 'x' }] }))).toMatchObject({
      code: 'lineup-malformed',
      where: expect.stringContaining('candidates.0'),
    })
  })
})
