import { noPurpose } from '@sable/core/physics/strength/purpose'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { InputError } from '@sable/core/units/errors'
import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { bringRecords } from './bringRecords'
import type { LineupContent } from './lineup'
import { readCarriedLineup, writeLineupArchive } from './lineupArchive'
import { writeLineupFile } from './lineupFile'
import { SHELF_FILE_VERSION, shelfSchema } from './shelf'

const spool = { key: 'reel', name: 'Reel', material: 'petg', netG: 500, price: 20, weighings: [], dried: [], defaults: {} }
const shelf = shelfSchema.parse({
  printers: starterPrinters,
  nozzles: starterNozzles,
  materials: starterMaterials,
  spools: [spool],
  profiles: [],
})
const content: LineupContent = {
  name: 'Hook',
  partId: '2b1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a10',
  placement: { scale: 2, rotateDeg: [90, 0, 0] },
  purpose: noPurpose,
  candidates: [
    {
      id: '7c1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a11',
      name: 'plain',
      printer: 'lugger',
      nozzle: 'bore-0.4',
      material: 'pla',
      values: {},
      overrides: [],
    },
    {
      id: '7c1c6a52-2f0e-4b47-9d2c-1f6f6f3f2a12',
      name: 'reeled',
      printer: 'cutter',
      nozzle: 'bore-0.6',
      material: 'petg',
      spool: 'reel',
      values: { wallCount: 4 },
      overrides: [],
    },
  ],
}
const part = { name: 'hook', contentKey: 'a'.repeat(64), fileName: 'hook.stl' }
const model = strToU8('solid hook')

describe('a lineup as one file', () => {
  it('carries its model and the records that it names, and no others', async () => {
    const carried = readCarriedLineup(await writeLineupArchive(content, part, model, shelf), 'hook.lineup.zip')
    expect(carried.model).toEqual({ fileName: 'hook.stl', bytes: model })
    expect(carried.lineup.candidates.map(({ name, spool: own }) => [name, own])).toEqual([
      ['plain', undefined],
      ['reeled', 'reel'],
    ])
    const keys = (kind: 'printers' | 'nozzles' | 'materials' | 'spools') => carried.records![kind].map(({ key }) => key).sort()
    expect(keys('printers')).toEqual(['cutter', 'lugger'])
    expect(keys('nozzles')).toEqual(['bore-0.4', 'bore-0.6'])
    expect(keys('materials')).toEqual(['petg', 'pla'])
    expect(keys('spools')).toEqual(['reel'])
  })

  it('is read as JSON too, as it always was', () => {
    expect(readCarriedLineup(strToU8(writeLineupFile(content, part)), 'x.json')).toEqual({
      lineup: expect.objectContaining({ name: 'Hook', part: { name: 'hook', contentKey: part.contentKey } }),
    })
  })

  it.each([
    ['without a lineup', zipSync({ 'model/x.stl': model }), 'lineup-missing'],
    [
      'with a shelf that is none',
      zipSync({ 'lineup.json': strToU8(writeLineupFile(content, part)), 'shelf.json': strToU8('{}') }),
      'records-malformed',
    ],
    [
      'that unpacks to more than a model may be',
      zipSync({ 'model/x.stl': new Uint8Array(90 * 2 ** 20) }, { level: 1 }),
      'archive-unpacks-too-large',
    ],
    ['that is cut short', zipSync({ 'lineup.json': strToU8('{}') }).subarray(0, 40), 'archive-damaged'],
  ])('%s is refused', (_, bytes, code) => {
    expect(() => readCarriedLineup(bytes, 'x.zip')).toThrow(InputError)
    expect(() => readCarriedLineup(bytes, 'x.zip')).toThrow(expect.objectContaining({ code }))
  })
})

describe('records from elsewhere', () => {
  const file = (more: object) => ({
    format: 'sable-lantern/shelf' as const,
    version: SHELF_FILE_VERSION as typeof SHELF_FILE_VERSION,
    printers: [],
    nozzles: [],
    materials: [],
    spools: [],
    profiles: [],
    ...more,
  })

  it('that say the same as what is here are the same, whatever their revision', () => {
    const brought = bringRecords(file({ spools: [{ ...shelf.spools[0]!, revision: 9, archived: true }], printers: shelf.printers }), shelf)
    expect(brought.file.spools).toEqual([])
    expect(brought.file.printers).toEqual([])
    expect(brought.keyOf('spools', 'reel')).toBe('reel')
  })

  it('that are new come with their keys', () => {
    const other = { ...shelf.spools[0]!, key: 'other', name: 'Other' }
    expect(bringRecords(file({ spools: [other] }), shelf).file.spools).toEqual([{ ...other, revision: 1 }])
  })

  it('that say something else under a key that is taken get their own, and their spools follow', () => {
    const petg = { ...shelf.materials.find(({ key }) => key === 'petg')!, density: 1.3 }
    const { file: fresh, keyOf } = bringRecords(
      file({ materials: [petg], spools: [{ ...shelf.spools[0]!, key: 'other', name: 'Other' }] }),
      shelf,
    )
    const key = keyOf('materials', 'petg')
    expect(key).not.toBe('petg')
    expect(fresh.materials).toEqual([expect.objectContaining({ key, density: 1.3, starter: false })])
    expect(fresh.spools).toEqual([expect.objectContaining({ key: 'other', material: key })])
  })
})
