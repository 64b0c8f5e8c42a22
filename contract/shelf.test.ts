import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { describe, expect, it } from 'vitest'
import { differences } from './differences'
import { keyFor, setupOf, shelfSchema } from './shelf'

const shelf = shelfSchema.parse({
  printers: starterPrinters,
  nozzles: starterNozzles,
  materials: starterMaterials,
  spools: [{ key: 'reel', name: 'Reel', material: 'pla', netG: 500, price: 20, weighings: [], dried: ['2026-11-20'], defaults: {} }],
  profiles: [],
})
const names = { printer: 'lugger', nozzle: 'bore-0.4', material: 'pla' }

describe('what a candidate prints with', () => {
  it('is found by its keys, with the spool’s numbers over its material’s', () => {
    expect(setupOf(names, shelf)).toMatchObject({ printer: { name: 'Lugger 250' }, material: { pricePerKg: 20 } })
    const spooled = setupOf({ ...names, spool: 'reel' }, shelf, '2026-11-25')
    expect(spooled).toMatchObject({ material: { pricePerKg: 40 }, stock: { days: 5, remaining: { grams: 500, from: 'label' } } })
    expect(setupOf({ ...names, spool: 'reel' }, shelf)?.stock).toBeUndefined()
  })

  it('is of the spool’s material, whatever the candidate still says', () => {
    expect(setupOf({ ...names, material: 'petg', spool: 'reel' }, shelf)?.material.key).toBe('pla')
  })

  it('is the same however often its records were changed or put away and back', () => {
    const changed = {
      ...shelf,
      printers: shelf.printers.map((printer) => ({ ...printer, revision: 7, archived: true, starter: false })),
      spools: shelf.spools.map((spool) => ({ ...spool, revision: 3 })),
    }
    expect(setupOf({ ...names, spool: 'reel' }, changed, '2026-11-25')).toEqual(setupOf({ ...names, spool: 'reel' }, shelf, '2026-11-25'))
  })

  it('is nothing where the shelf lacks any of it', () => {
    expect(setupOf({ ...names, nozzle: 'nowhere' }, shelf)).toBeUndefined()
    expect(setupOf({ ...names, spool: 'nowhere' }, shelf)).toBeUndefined()
  })
})

describe('keys', () => {
  it('come from names, are plain, and never twice the same', () => {
    expect(keyFor('Lugger 250', [])).toBe('lugger-250')
    expect(keyFor('Žlutý 0.4 mm!', [])).toBe('zluty-0.4-mm')
    expect(keyFor('***', [])).toBe('record')
    expect(keyFor('Reel', ['reel', 'reel-2'])).toBe('reel-3')
  })
})

describe('differences between records', () => {
  const here = { key: 'a', name: 'A', limits: { speed: { x: 1, y: 2 } }, tags: ['old'] }

  it('are told field by field, lists as a whole, and keys not at all', () => {
    const there = { key: 'b', name: 'A', limits: { speed: { x: 1, y: 3 } }, tags: ['old', 'new'], notes: 'n' }
    expect(differences(here, there).map(({ path, here: is, there: other }) => [path, is, other])).toEqual([
      ['limits.speed.y', '2', '3'],
      ['tags', '["old"]', '["old","new"]'],
      ['notes', '–', 'n'],
    ])
  })

  it('can be taken over one at a time', () => {
    const there = { key: 'b', name: 'B', limits: { speed: { x: 1, y: 3 } } }
    const of = (path: string) => differences(here, there).find((difference) => difference.path === path)?.taken
    expect(of('limits.speed.y')).toEqual({ ...here, limits: { speed: { x: 1, y: 3 } } })
    expect(of('tags')).toEqual({ key: 'a', name: 'A', limits: here.limits })
    expect(differences(here, here)).toEqual([])
  })
})
