import { medians } from '../../constants/constants'
import { countedOoze, leastPull, letThrough, meanOoze, unknownOoze } from '../../learning/stringCounts'
import { LONGEST_USEFUL_PULL, stringFigures } from '../../physics/finish/strings'
import type { SettingValues } from '../../profile/settings'
import { resolveSettings, type Setup } from '../../setup/resolve'
import { columns, waysIn } from '../shapes/columns'
import { choice, measure, numberIn } from '../spec/question'
import type { TrialBand, TrialSpec } from '../spec/trial'
import type { Advice, TrialKind } from './kind'

/** Strings in a band that was told in words, as a share of the ways over open air in it. Assumed. */
const SHARES: Readonly<Record<string, number>> = { none: 0, hairs: 0.08, webs: 0.4 }

/** Ladders of practice, one change or several at a time (CP-R3, R8, common practice). */
const escalating: readonly (readonly [string, SettingValues])[] = [
  ['off', { retractLength: 0, wipeLength: 0, coastLength: 0 }],
  ['0.8', { retractLength: 0.8, retractSpeed: 35, wipeLength: 2, coastLength: 0 }],
  ['1.5', { retractLength: 1.5, retractSpeed: 35, wipeLength: 2, coastLength: 0.2 }],
  ['3', { retractLength: 3, retractSpeed: 35, wipeLength: 2, coastLength: 0.2 }],
  ['3-45', { retractLength: 3, retractSpeed: 45, wipeLength: 4, coastLength: 0.2 }],
  ['3-4', { retractLength: 3, retractSpeed: 45, wipeLength: 4, coastLength: 0.2, wipeRetractFirst: 0 }],
]
const order: readonly (readonly [string, SettingValues])[] = [
  ['0.4', { retractLength: 0.4, retractAtLayer: 'off', wipeLength: 0 }],
  ['0.4-1', { retractLength: 0.4, retractAtLayer: 'on', wipeLength: 0 }],
  ['0.4-2', { retractLength: 0.4, retractAtLayer: 'on', wipeLength: 1 }],
  ['0.4-3', { retractLength: 0.4, retractAtLayer: 'on', wipeLength: 2 }],
  ['0.6', { retractLength: 0.6, retractAtLayer: 'on', wipeLength: 2 }],
]

const asBands = (all: readonly (readonly [string, SettingValues])[]): TrialBand[] => all.map(([label, values]) => ({ label, values }))

/** Steps of a ladder of lengths, mm: with the extruder at the head, through a tube. */
const stepOf = (extruder: Setup['printer']['extruder']): number => (extruder === 'tube' ? 1.6 : 0.4)

/** Strings that the model expects in a band of a spool of which one string is drawn on a usual way, nothing pulled back. */
function exposureOf(spec: TrialSpec, index: number, setup: Setup): number {
  const { settings } = resolveSettings(setup, { ...spec.values, ...spec.bands[index]!.values })
  const { count, way } = waysIn(Math.round(spec.size.band / settings.layerHeight))
  const pulled = {
    count: new Float64Array([count]),
    length: new Float64Array([count * way]),
    roots: new Float64Array([count * Math.sqrt(way)]),
  }
  const none = { count: new Float64Array([0]), length: new Float64Array([0]), roots: new Float64Array([0]) }
  const constants = { ...(setup.constants ?? medians).strings, ooze: 1 }
  return stringFigures({ open: none, pulled }, () => settings, setup, constants).expected
}

export const stringQuestions = [
  choice('strings', 'Strings', { none: 'None', hairs: 'Hairs', webs: 'Webs' }, true),
  measure('count', 'or counted', '', 0, 1000),
]

/** How many strings a band shows: counted, or what the words stand for. */
export function stringsIn(answers: Readonly<Record<string, number | string>> | undefined, ways: number): number | undefined {
  const counted = numberIn(answers, 'count')
  const share = SHARES[String(answers?.strings)]
  return counted ?? (share === undefined ? undefined : Math.round(share * ways))
}

/** Three columns: open travel in every layer, and less of it to be seen the more is pulled back. */
export const retraction: TrialKind = {
  id: 'retraction',
  name: 'Retraction',
  tells: 'how much must be pulled back so that this spool draws no strings on this printer',
  how: 'Hold it against the light and judge each band between the columns; press the bars: rigid, brittle or crumbled.',
  narrows: ['strings.ooze'],
  advises: ['retractLength', 'retractSpeed', 'wipeLength', 'coastLength'],
  owner: 'spool',
  varied: {
    label: 'Pulled back',
    unit: 'mm',
    values: (value) => ({ retractLength: value }),
    usual: ({ printer: { extruder } }) =>
      extruder === 'tube' ? { from: 0, to: 8, step: stepOf(extruder) } : { from: 0, to: 2, step: stepOf(extruder) },
    within: () => ({ least: 0, most: 12, what: 'what a feed can pull' }),
  },
  forms: [
    { id: 'length', name: 'Length alone' },
    {
      id: 'escalating',
      name: 'Escalating, six bands',
      bands: () => asBands(escalating),
      warning: 'From band to band several things change at once: it says what works, not why.',
    },
    { id: 'order', name: 'The practised order, one print each', bands: () => asBands(order.slice(0, 1)) },
    { id: 'short', name: 'Short: one band', bands: (setup) => [ownBand(setup)] },
  ],
  size: { band: 8, foot: 0.8, length: 36 },
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({
    wallCount: 2,
    infillDensity: 10,
    topLayers: 2,
    bottomLayers: 2,
    retractMinTravel: 1,
    travelInside: 'off',
    lift: 'never',
    supports: 'off',
    brim: 'none',
  }),
  shape: (kit, spec) => columns(kit, spec),
  questions: {
    band: [...stringQuestions, choice('bars', 'Bars', { rigid: 'Rigid', brittle: 'Brittle', crumbled: 'Crumbled' })],
    whole: [choice('pair', 'Beside the print before', { none: 'None left', fewer: 'Fewer', same: 'The same', more: 'More' })],
  },
  refuse: (_, { stock }) =>
    stock?.wet ? 'The spool is probably wet, and wet filament defeats every retraction: dry it first.' : undefined,
  judge({ spec, setup, bands, whole }) {
    const ways = waysIn(Math.round(spec.size.band / resolveSettings(setup, spec.values).settings.layerHeight)).count
    const read = spec.bands.flatMap((band, i) => {
      const count = stringsIn(bands[i], ways)
      return count === undefined ? [] : [{ band, count, exposure: exposureOf(spec, i, setup), bars: bands[i]?.bars }]
    })
    const clean = read.find(({ count }) => count === 0)
    const isBrittle = read.some(({ bars }) => bars === 'brittle' || bars === 'crumbled')
    const { extruder } = setup.printer
    const longest = Math.max(...spec.bands.map(({ values }) => values.retractLength ?? 0))
    const warnings: string[] = [
      ...(isBrittle ? ['Brittle bars come from cold or from the fan, not from retraction: look at temperature first.'] : []),
      ...(setup.stock?.wet ? ['The spool was probably wet: what is read now will not hold once it is dry.'] : []),
    ]
    const evidence = read.map(({ count, exposure }) => ({ on: 'strings', count, exposure }) as const)
    if (read.length === 0) return { found: 'Nothing was read.', evidence: [], advice: [], warnings }
    if (whole.pair === 'more') warnings.push('More than before: the last change made it worse, take it back.')
    if (clean) {
      const advice = Object.entries(clean.band.values).map(
        ([setting, value]): Advice => ({ of: 'spool', setting: setting as Advice['setting'], value }),
      )
      return {
        found: `Clean from band ${clean.band.label} on.`,
        short: `${clean.band.values.retractLength ?? clean.band.label} mm`,
        evidence,
        advice,
        next: { kind: 'fan', why: 'Strings are settled: what the fan does to overhangs and bond.' },
        warnings: [
          ...warnings,
          ...(read.some(({ count }, i) => count > 0 && i > read.indexOf(clean))
            ? ['A band beyond it strings again: the readings contradict each other.']
            : []),
        ],
      }
    }
    const useful = LONGEST_USEFUL_PULL[extruder]
    const expected = cleanPull(read, setup)
    const step = spec.form === 'order' ? order.findIndex(([label]) => label === spec.bands[0]?.label) + 1 : 0
    const further = order[step]
    return {
      found: `No band is clean, up to ${longest} mm.${expected === undefined ? '' : ` By these strings about ${expected.toFixed(1)} mm would be.`}`,
      short: 'not clean',
      evidence,
      advice: [],
      next:
        step > 0 && further
          ? { kind: 'retraction', form: 'order', bands: asBands([further]), why: `The next of the practised order: ${further[0]}.` }
          : longest < useful
            ? {
                kind: 'retraction',
                range: { from: longest, to: Math.min(12, longest + 4 * stepOf(extruder)), step: stepOf(extruder) },
                why: 'Longer, then faster, then with lift.',
              }
            : {
                kind: setup.stock?.wet ? 'dryness' : 'temperature',
                why: 'Beyond this, length brings no more: dryness, heat, wiping or the fan.',
              },
      warnings,
    }
  },
}

/** The pull that would leave under half a string in a band, mm, as what was counted tells; nothing where none does. */
function cleanPull(
  read: readonly { readonly band: TrialBand; readonly count: number; readonly exposure: number }[],
  setup: Setup,
): number | undefined {
  const { extruder } = setup.printer
  const { slackTube, slackDirect, stays } = (setup.constants ?? medians).strings
  const slack = extruder === 'tube' ? slackTube : slackDirect
  const [first] = read
  if (first?.band.values.retractLength === undefined) return undefined
  const most = LONGEST_USEFUL_PULL[extruder]
  // What a band is exposed to, over what its own pull lets through.
  const ways = first.exposure / letThrough(Math.min(first.band.values.retractLength, most), slack, stays)
  return leastPull(meanOoze(countedOoze(unknownOoze, read)), ways, slack, stays, most)
}

function ownBand(setup: Setup): TrialBand {
  const { retractLength } = resolveSettings(setup, {}).settings
  return { label: String(retractLength), value: retractLength, values: { retractLength } }
}
