import { allRules } from '@sable/core/checks/runChecks'
import { purposeChecks } from '@sable/core/checks/safetyChecks'
import { constantIds, constantOf } from '@sable/core/constants/constants'
import type { Constant } from '@sable/core/constants/table/constant'
import { causesOf, faultIds, faults } from '@sable/core/faults/faults'
import { figureOf, figures } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { definitionOf, isSettingName } from '@sable/core/profile/settings'
import { kindsInOrder } from '@sable/core/trials/kinds'
import { type Page, readPage } from './sections'

/** What an entry is of. Its address is its kind and its name: "setting/layerHeight". */
export const entryKinds = ['page', 'setting', 'figure', 'check', 'constant', 'trial', 'fault', 'material', 'school', 'word'] as const
export type EntryKind = (typeof entryKinds)[number]

export const kindNames: Readonly<Record<EntryKind, string>> = {
  page: 'How it works',
  setting: 'Settings',
  figure: 'Figures',
  check: 'Checks',
  constant: 'Constants',
  trial: 'Trials',
  fault: 'Faults',
  material: 'Materials',
  school: 'Schools',
  word: 'Words',
}

export interface Entry {
  /** "setting/layerHeight" */
  readonly id: string
  readonly kind: EntryKind
  readonly title: string
  /** Under which it stands in its kind: a group of the ledger. */
  readonly group: string
  /** Other words for it, for search. */
  readonly synonyms: readonly string[]
  /** In one line, from the tables. */
  readonly brief: string
  /** In Markdown. */
  readonly text: string
}

/** Pages of the handbook by their names, without ending: "settings/walls", "checks". */
export type Pages = Readonly<Record<string, string>>

const settingPages = ['lines', 'walls', 'infill', 'speeds', 'heat', 'retraction', 'supports', 'firstLayer'] as const

/** The handbook: what is written on its pages, beside what the tables of the core say of each thing. In the order in which it is read. */
export function entriesOf(pages: Pages): Entry[] {
  const page = (name: string): Page => readPage(pages[name] ?? '')
  const of = (kind: EntryKind, name: string, more: (name: string) => Partial<Entry>, names = [name]): Entry[] =>
    names.flatMap((own) => page(own).sections.map(({ name: section, text }) => entry(kind, section, text, more(section))))
  return [
    ...of('page', 'pages', (name) => ({ title: pageTitles[name] ?? name })),
    ...of(
      'setting',
      '',
      settingFacts,
      settingPages.map((name) => `settings/${name}`),
    ),
    ...of('figure', 'figures', figureFacts),
    ...of('check', 'checks', checkFacts),
    ...constantEntries(page('constants')),
    ...of('trial', 'trials', trialFacts),
    ...faultEntries(),
    ...of('material', 'materials', (name) => ({ title: materialTitles[name] ?? name })),
    ...of('school', 'schools', schoolFacts(page('schools'))),
    ...of('word', 'words', wordFacts(page('words'))),
  ]
}

const entry = (kind: EntryKind, name: string, text: string, more: Partial<Entry>): Entry => ({
  id: `${kind}/${name}`,
  kind,
  title: name,
  group: '',
  synonyms: [],
  brief: '',
  text,
  ...more,
})

const pageTitles: Readonly<Record<string, string>> = {
  places: 'Places',
  ranges: 'Ranges and the lamp',
  constants: 'Constants',
  log: 'Printing and learning',
  faults: 'Faults',
  queue: 'The queue',
  schools: 'Schools',
  keys: 'Keys',
  models: 'Models and their sources',
}
const materialTitles: Readonly<Record<string, string>> = {
  flexible: 'Flexible (TPU, TPE)',
  woodPLA: 'Wood-filled PLA',
  ABS: 'ABS and ASA',
  nylon: 'Fibre-filled nylon',
}

function settingFacts(name: string): Partial<Entry> {
  if (!isSettingName(name)) return {}
  const setting = definitionOf(name)
  return { title: setting.label, group: setting.group, synonyms: setting.synonyms, brief: setting.help }
}

function figureFacts(name: string): Partial<Entry> {
  const known = figures.some(({ id }) => id === name) ? figureOf[name as FigureId] : undefined
  return known ? { title: known.label, brief: known.help } : {}
}

const sentenceOf = (id: string): string => {
  const words = id.replaceAll('-', ' ')
  return `${words[0]!.toUpperCase()}${words.slice(1)}`
}
const severityOf = new Map([
  ...allRules.map(({ id, severity }) => [id, severity] as const),
  ...purposeChecks({ kind: 'load', touchesFood: true }).map(({ id, severity }) => [id, severity] as const),
])
const checkFacts = (name: string): Partial<Entry> => ({ title: sentenceOf(name), group: severityOf.get(name) ?? '' })

function trialFacts(name: string): Partial<Entry> {
  const kind = kindsInOrder.find(({ id }) => id === name)
  return kind ? { title: kind.name, brief: `It tells ${kind.tells}. ${kind.how}` } : {}
}

const schoolFacts =
  (page: Page) =>
  (name: string): Partial<Entry> => {
    const [, title = name] = /^\*\*(.*?)\.?\*\*/.exec(page.sections.find((one) => one.name === name)?.text ?? '') ?? []
    return { title: `${name} ${title}` }
  }

const wordFacts =
  (page: Page) =>
  (name: string): Partial<Entry> => {
    const [, also = ''] = /Also: (.*?)\./.exec(page.sections.find((one) => one.name === name)?.text ?? '') ?? []
    return { title: sentenceOf(name), synonyms: also.split(', ').filter((word) => word !== '') }
  }

/** Constants say for themselves what they are; what a group of them is about stands on its page. */
function constantEntries(page: Page): Entry[] {
  return constantIds.map((id) => {
    const group = id.slice(0, id.indexOf('.'))
    const constant = constantOf(id)
    const about = page.sections.find(({ name }) => name === group)?.text ?? ''
    return entry('constant', id, about, { title: constant.label, group, brief: constantWords(constant) })
  })
}

/** Faults are told by their table: what one sees, and its causes in the order of practice. */
function faultEntries(): Entry[] {
  return faultIds.map((id) => {
    const fault = faults[id]
    const told = causesOf(fault).map(({ name, why, remedies, school }) =>
      [
        `- **${name}.** ${why} ${remedies.map(({ words }) => words).join('; ')}.`,
        ...(school === undefined ? [] : [`  *${school}*`]),
        ...new Set(remedies.flatMap(({ caution }) => (caution === undefined ? [] : [`  **Caution:** ${caution}`]))),
      ].join('\n'),
    )
    const order = fault.unranked
      ? 'Each cause has a sign of its own; practice does not rank them.'
      : 'The likeliest first, as practice goes.'
    const confirm = fault.confirm === undefined ? [] : [`It comes and goes: it counts as gone after ${fault.confirm} prints in a row.`]
    return entry('fault', id, [order, ...told, ...confirm, 'See [Faults](page/faults).'].join('\n\n'), {
      title: fault.name,
      brief: fault.looks,
    })
  })
}

const constantWords = ({ median, unit, source, measure }: Constant): string =>
  [
    `${Number(median.toPrecision(3))}${unit === '' ? '' : ` ${unit}`} where nothing was measured. ${source}`,
    ...(measure ? [`Measured by: ${measure.how}.`] : []),
  ].join(' ')

/** Addresses that texts link to: "setting/layerHeight". */
export const linksIn = (text: string): string[] => [...text.matchAll(/\]\(([a-z]+\/[^)\s]+)\)/g)].map(([, address]) => address!)
