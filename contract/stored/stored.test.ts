import { noPurpose } from '@sable/core/physics/strength/purpose'
import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { readLineupFile } from '../lineupFile'
import { shelfFileSchema } from '../shelf'
import { storedAs } from './storedAs'
import { storedOverrides, storedPurpose, storedWrite } from './storedLineups'
import { storedPrint } from './storedPrints'
import { storedFigures, storedSpec } from './storedSearches'
import { storedRecords } from './storedShelf'
import { resolvedByNamesOfToday } from './upgrades'

const place = { name: 'top', fromZ: 10, values: { fanSpeed: 80 } }
const column = { name: 'everyday', printer: 'lugger', nozzle: 'bore-0.4', material: 'pla' }
const ids = ['3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01', '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a02', '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a03']
const placement = { scale: 1, rotateDeg: [0, 0, 0] }

describe('a stored record', () => {
  const stored = storedAs('spool', z.object({ grams: z.number(), of: z.string() }), [
    (first) => ({ grams: first }),
    (second) => ({ ...(second as object), of: 'pla' }),
  ])

  it('carries its version and comes back', () => {
    expect(JSON.parse(stored.write({ grams: 3, of: 'petg' }))).toEqual({ version: 3, value: { grams: 3, of: 'petg' } })
    expect(stored.read(stored.write({ grams: 3, of: 'petg' }))).toEqual({ grams: 3, of: 'petg' })
  })

  it('of each earlier version goes through every step from there on, and the first wrote no version', () => {
    expect(stored.read('7')).toEqual({ grams: 7, of: 'pla' })
    expect(stored.read('{"version":1,"value":7}')).toEqual({ grams: 7, of: 'pla' })
    expect(stored.read('{"version":2,"value":{"grams":7}}')).toEqual({ grams: 7, of: 'pla' })
  })

  it('of a newer version, or of none, is refused in words', () => {
    expect(() => stored.read('{"version":4,"value":{}}')).toThrow('This spool was written by a newer version of Sable Lantern (4, here 3).')
    expect(() => stored.read('{"grams":"much"')).toThrow(/JSON/)
    expect(() => stored.read('{"version":3,"value":{"grams":"much","of":"pla"}}')).toThrow(/grams/)
  })

  it('that holds nonsense reaches the schema through every upgrade', () => {
    for (const text of ['null', '[]', '3', '"x"', '{"objectives":3,"limits":null}'])
      for (const kind of [storedSpec, storedFigures, storedWrite, storedRecords.profiles]) expect(() => kind.read(text)).toThrow(z.ZodError)
  })
})

describe('what was written when tops and bottoms had another name', () => {
  it('a print keeps what it was made with, by the names of today', () => {
    const resolved = { skinSpeed: { value: 40, origin: 'profile' }, wallCount: { value: 3, origin: 'profile' } }
    const upgraded = resolvedByNamesOfToday({ name: 'shade', resolved }) as { resolved: object }
    expect(Object.keys(upgraded.resolved)).toEqual(['topBottomSpeed', 'wallCount'])
    expect(storedPrint.version).toBe(2)
  })
})

describe('what was written when overrides were called exceptions', () => {
  const overrides = [place]

  it('a profile of the shelf, and a list of places', () => {
    const old = { key: 'own', name: 'Own', values: { wallCount: 4 }, exceptions: [place] }
    expect(storedRecords.profiles.read(JSON.stringify(old))).toMatchObject({ key: 'own', values: { wallCount: 4 }, overrides })
    expect(storedOverrides.read(JSON.stringify([place]))).toEqual(overrides)
  })

  it('a lineup that waits in a browser', () => {
    const candidates = [{ id: ids[0], ...column, values: {}, exceptions: [place] }]
    const old = { name: 'mine', partId: ids[1], placement, purpose: noPurpose, candidates, revision: 3 }
    expect(storedWrite.read(JSON.stringify(old)).candidates[0]).toMatchObject({ overrides })
  })

  it('a lineup as a file, and a shelf as a file', () => {
    const lineup = { format: 'sable-lantern/lineup', version: 1, name: 'mine', part: { name: 'hook', contentKey: 'ab' }, placement }
    const file = readLineupFile(JSON.stringify({ ...lineup, candidates: [{ ...column, settings: {}, exceptions: [place] }] }), 'a.json')
    expect(file.candidates[0]).toMatchObject({ overrides })
    const shelf = { format: 'sable-lantern/shelf', version: 1, profiles: [{ key: 'own', name: 'Own', values: {}, exceptions: [place] }] }
    expect(shelfFileSchema.parse(shelf).profiles[0]).toMatchObject({ overrides })
    expect(shelfFileSchema.safeParse({ ...shelf, version: 4 }).success).toBe(false)
  })

  it('a profile that was for one material is for that one alone, in the desk and in a file', () => {
    const old = { key: 'own', name: 'Own', values: {}, material: 'petg' }
    expect(storedRecords.profiles.read(JSON.stringify({ version: 2, value: old })).materials).toEqual(['petg'])
    expect(storedRecords.profiles.read(JSON.stringify({ version: 2, value: { ...old, material: undefined } })).materials).toEqual([])
    const shelf = { format: 'sable-lantern/shelf', version: 2, profiles: [old] }
    expect(shelfFileSchema.parse(shelf).profiles[0]).toMatchObject({ materials: ['petg'], family: '' })
  })

  it('a purpose, which had one load along an axis, keeps it and has no cases', () => {
    const { cases: _, ...old } = { ...noPurpose, limits: { minLoadN: 40 } }
    expect(storedPurpose.read(JSON.stringify(old))).toEqual({ ...old, cases: [] })
    expect(storedPurpose.version).toBe(2)
  })

  it('a search, which weighed grams instead of filament', () => {
    const old = {
      lineupId: ids[0],
      partId: ids[1],
      placement,
      purpose: noPurpose,
      base: { id: ids[2], ...column, values: {}, exceptions: [place] },
      dimensions: [{ kind: 'setting', name: 'wallCount', values: [2, 3] }],
      objectives: [{ figure: 'grams', better: 'less' }],
      limits: [
        { figure: 'time', most: 60 },
        { figure: 'grams', most: 9 },
      ],
      budget: 5,
      seed: 1,
    }
    const spec = storedSpec.read(JSON.stringify(old))
    expect(spec.base).toMatchObject({ overrides })
    expect(spec.objectives).toEqual([{ figure: 'filament', better: 'less' }])
    expect(spec.limits.map(({ figure }) => figure)).toEqual(['time', 'filament'])
    expect(
      storedFigures.read('{"time":1,"grams":2,"cost":3,"surface":4,"gloss":1,"strength":6,"sway":7,"strings":8,"stops":0}'),
    ).toMatchObject({ filament: 2, stops: 0 })
  })
})
