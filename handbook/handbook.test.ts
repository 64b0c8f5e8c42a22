import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { allRules } from '@sable/core/checks/runChecks'
import { purposeChecks } from '@sable/core/checks/safetyChecks'
import { constantIds } from '@sable/core/constants/constants'
import { faultIds } from '@sable/core/faults/faults'
import { figures } from '@sable/core/figures/figures'
import { definitionOf, settingNames } from '@sable/core/profile/settings'
import { starterMaterials } from '@sable/core/shelf/starter'
import { kindsInOrder } from '@sable/core/trials/kinds'
import { describe, expect, it } from 'vitest'
import { entriesOf, linksIn, type Pages } from './entries'
import { readPage } from './sections'

const files = (folder: string): string[] =>
  readdirSync(join(import.meta.dirname, folder), { withFileTypes: true }).flatMap((found) =>
    found.isDirectory()
      ? found.name === 'node_modules'
        ? []
        : files(join(folder, found.name))
      : found.name.endsWith('.md')
        ? [join(folder, found.name)]
        : [],
  )
const pages: Pages = Object.fromEntries(
  files('.').map((file) => [file.replace(/\.md$/, ''), readFileSync(join(import.meta.dirname, file), 'utf8')]),
)
const entries = entriesOf(pages)
const has = (id: string): boolean => entries.some((entry) => entry.id === id)

describe('the handbook', () => {
  it.each([
    ['setting', settingNames],
    ['figure', figures.map(({ id }) => id)],
    ['check', [...allRules.map(({ id }) => id), ...purposeChecks({ kind: 'load', touchesFood: true }).map(({ id }) => id)]],
    ['constant', constantIds],
    ['trial', kindsInOrder.map(({ id }) => id)],
    ['fault', faultIds],
    ['material', starterMaterials.map(({ family }) => family)],
    ['school', Array.from({ length: 12 }, (_, i) => `S${i + 1}`)],
  ] as const)('has an entry for every %s', (kind, names) => {
    expect(names.length).toBeGreaterThan(5)
    expect([...new Set<string>(names)].filter((name) => !has(`${kind}/${name}`))).toEqual([])
  })

  it('has none for what there is not, and none twice', () => {
    expect(
      entries.filter(({ kind, id }) => kind === 'setting' && !(settingNames as string[]).includes(id.slice(8))).map(({ id }) => id),
    ).toEqual([])
    expect(entries.filter(({ kind, group }) => kind === 'check' && group === '').map(({ id }) => id)).toEqual([])
    expect(new Set(entries.map(({ id }) => id)).size).toBe(entries.length)
  })

  it('says something in every entry, and links to nothing that is not there', () => {
    for (const { id, text, brief, title } of entries) {
      expect(`${text}${brief}`.length, id).toBeGreaterThan(20)
      expect(title, id).not.toBe('')
      for (const link of linksIn(text)) expect(has(link), `${id} links to ${link}`).toBe(true)
    }
  })

  it('stands each setting on the page of its group', () => {
    for (const [name, text] of Object.entries(pages)) {
      if (!name.startsWith('settings/')) continue
      const page = readPage(text)
      for (const section of page.sections) expect(definitionOf(section.name as never).group, section.name).toBe(page.title)
    }
  })

  it('warns where something can hurt', () => {
    const of = (id: string): string => entries.find((entry) => entry.id === id)!.text
    expect(of('material/ABS')).toMatch(/flammable vapour.*no flame/s)
    expect(of('material/woodPLA')).toContain('dust mask')
    expect(of('figure/strength')).toContain('never a rating')
    expect(of('check/nozzle-length')).toMatch(/gloves, power off/)
    expect(of('trial/dryness')).toContain('kitchen oven')
    expect(of('fault/clog')).toMatch(/pliers, not fingers/)
    expect(of('fault/strings')).toMatch(/oven/)
    for (const bars of ['trial/barsLying', 'trial/barsStanding']) expect(of(bars)).toContain('eye protection')
    expect(of('school/S12')).toContain('local rules for food contact')
  })
})
