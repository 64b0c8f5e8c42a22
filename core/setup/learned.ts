import { type ConstantId, type Constants, constantIds, constantOf, constantsFrom, medians, valueIn } from '../constants/constants'
import type { Owner } from '../constants/table/constant'
import { conformal } from '../learning/coverage'
import type { Evidence } from '../learning/evidence'
import { narrowByWeight } from '../learning/flowFactor'
import { flowAt, flowLine, withLadder } from '../learning/flowLine'
import { type LogNormal, narrow, narrowPlain } from '../learning/logNormal'
import { countedOoze, meanOoze, spreadOfOoze, unknownOoze } from '../learning/stringCounts'
import { paceOf, timed } from '../learning/timed'
import { flowModel } from '../physics/melt/flowLimit'
import type { Setup } from './resolve'

/** What was read, where, and who says so. */
export interface PlacedEvidence {
  readonly evidence: readonly Evidence[]
  /** Keys of the records that it was read with. */
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly spool?: string | undefined
  /** Of the spool: reels of one maker are alike. */
  readonly maker?: string | undefined
  readonly from: string
  /** By how many standard deviations figures that were foretold for it were off. */
  readonly scores?: Scores | undefined
}

/** Figures that the log holds against what was foretold. */
export const scoredFigures = ['time', 'filament'] as const
export type ScoredFigure = (typeof scoredFigures)[number]
export type Scores = Readonly<Partial<Record<ScoredFigure, number>>>

/** Two constants that were read together: what one misses the other makes up for. */
export interface Linked {
  readonly of: readonly [ConstantId, ConstantId]
  /** Each on its own scale. */
  readonly covariance: number
}

/** A constant after what was read: its value, one standard deviation on its own scale, and who says so. */
export interface Learned {
  readonly value: number
  readonly spread: number
  /** Calculated where only other reels of its maker were read. */
  readonly basis: 'measured' | 'calculated'
  readonly from: string
}

/**
 * A setup whose constants are what all evidence that belongs to it makes of them. Worked out from the evidence every time and
 * never stored over it: what is taken out has never been.
 */
export function learned(setup: Setup, all: readonly PlacedEvidence[]): Setup {
  const own = all.filter((one) => concerns(one, setup))
  const coverage = coverageOf(all)
  if (own.length === 0 && Object.keys(coverage).length === 0) return setup
  const known: Partial<Record<ConstantId, Learned>> = {}
  const told = toldBy(own)
  for (const id of constantIds) {
    const found = learnedConstant(id, setup, told.get(id) ?? [])
    if (found) known[id] = found
  }
  const { material: withLadders, ladder } = learnedLadder(setup, own)
  const isBroken =
    known['strength.inLayer'] !== undefined && (told.get('strength.inLayer') ?? []).some(({ placed }) => belongsTo('spool', placed, setup))
  const material = isBroken ? { ...withLadders, strength: { ...withLadders.strength, basis: 'measured' as const } } : withLadders
  const { pace, linked } = learnedPace(setup, own)
  Object.assign(known, ladder, pace)
  return {
    ...setup,
    material,
    ...(Object.keys(known).length === 0 ? {} : { known, constants: withKnown(setup.constants ?? medians, known) }),
    ...(linked ? { linked } : {}),
    ...(Object.keys(coverage).length === 0 ? {} : { coverage }),
  }
}

/** By how many standard deviations a figure's 80 % range reaches to either side, as prints of the whole log have it. */
function coverageOf(all: readonly PlacedEvidence[]): Partial<Record<ScoredFigure, number>> {
  return Object.fromEntries(
    scoredFigures.flatMap((figure) => {
      const scores = all.flatMap((one) => one.scores?.[figure] ?? [])
      return scores.length === 0 ? [] : [[figure, conformal(scores)!]]
    }),
  )
}

/** A machine's acceleration, pace and start, as prints by the clock tell them together. */
function learnedPace(
  setup: Setup,
  all: readonly PlacedEvidence[],
): { pace: Partial<Record<ConstantId, Learned>>; linked?: readonly Linked[] } {
  const own = all.filter((one) => belongsTo('printer', one, setup) && one.evidence.some(({ on }) => on === 'timed'))
  if (own.length === 0) return { pace: {} }
  const { mean, covariance } = timed(
    paceBefore,
    own.flatMap(({ evidence }) => evidence.filter((one) => one.on === 'timed')),
  )
  const from = own.length === 1 ? own[0]!.from : `${own.length} prints, the last ${own.at(-1)!.from}`
  const as = (value: number, variance: number): Learned => ({ value, spread: Math.sqrt(variance), basis: 'measured', from })
  return {
    pace: {
      'print.acceleration': as(Math.exp(mean[0]), covariance[0]!),
      'print.pace': as(Math.exp(mean[1]), covariance[4]!),
      'print.start': as(mean[2], covariance[8]!),
    },
    linked: [
      { of: ['print.acceleration', 'print.pace'], covariance: covariance[1]! },
      { of: ['print.acceleration', 'print.start'], covariance: covariance[2]! },
      { of: ['print.pace', 'print.start'], covariance: covariance[5]! },
    ],
  }
}

const spreadOf = (id: ConstantId): number => constantOf(id).spread
/** What is thought of any machine before one of its prints was timed. */
const paceBefore = paceOf([0, 0, 0], [spreadOf('print.acceleration'), spreadOf('print.pace'), spreadOf('print.start')])

const withKnown = (values: Constants, known: Partial<Record<ConstantId, Learned>>): Constants =>
  // A ladder's own factor is told by the ladder itself.
  constantsFrom((id) => (id === 'melt.ladder' ? valueIn(values, id) : (known[id]?.value ?? valueIn(values, id))))

/** Whether anything of it can belong to a setup: same printer, or same spool, or of the same maker. */
const concerns = ({ printer, spool, material, maker }: PlacedEvidence, setup: Setup): boolean =>
  printer === setup.printer.key ||
  (spool === setup.spool?.key && material === setup.material.key) ||
  (maker !== undefined && maker === setup.spool?.maker)

/** Whether a reading made there tells of the same thing as here, by whose number it is. */
export function belongsTo(owner: Owner, { printer, nozzle, material, spool }: PlacedEvidence, setup: Setup): boolean {
  switch (owner) {
    case 'printer':
    case 'hot end':
      return printer === setup.printer.key
    case 'nozzle':
      return nozzle === setup.nozzle.key
    case 'material':
      return material === setup.material.key
    case 'spool':
      return material === setup.material.key && spool === setup.spool?.key
    // A form of a model was fitted to many machines; what one print says of it holds for that machine and spool.
    case 'pair':
    case 'model':
      return printer === setup.printer.key && material === setup.material.key && spool === setup.spool?.key
  }
}

/** A reading of a constant, and where it was made. */
interface Told {
  readonly one: Evidence
  readonly placed: PlacedEvidence
}

/** Readings by the constant that they tell of: looked through once, for a log may be long. Those that are told together are not among them. */
function toldBy(all: readonly PlacedEvidence[]): ReadonlyMap<ConstantId, readonly Told[]> {
  const told = new Map<ConstantId, Told[]>()
  for (const placed of all)
    for (const one of placed.evidence) {
      const id = toldOf(one)
      if (id === undefined) continue
      const known = told.get(id)
      if (known) known.push({ one, placed })
      else told.set(id, [{ one, placed }])
    }
  return told
}

const toldOf = (one: Evidence): ConstantId | undefined =>
  one.on === 'constant' ? one.constant : one.on === 'weight' ? 'print.flow' : one.on === 'strings' ? 'strings.ooze' : undefined

function learnedConstant(id: ConstantId, setup: Setup, all: readonly Told[]): Learned | undefined {
  const { owner, scale } = constantOf(id)
  const told = all.filter(({ placed }) => belongsTo(owner, placed, setup))
  const prior = owner === 'spool' ? ofMaker(id, setup, all) : { median: constantOf(id).median, spread: constantOf(id).spread }
  const isShifted = prior.median !== constantOf(id).median
  if (told.length === 0 && !isShifted) return undefined
  const narrowed = narrowedBy(
    prior,
    told.map(({ one }) => one),
    scale,
  )
  const from = told.length > 0 ? fromOf(told.map(({ placed }) => placed.from)) : `other spools of ${setup.spool?.maker}`
  return { value: narrowed.median, spread: narrowed.spread, basis: told.length > 0 ? 'measured' : 'calculated', from }
}

/** So many are told one by one. */
const NAMED = 3
const fromOf = (all: readonly string[]): string => (all.length <= NAMED ? all.join('; ') : `${all.length} readings, the last ${all.at(-1)}`)

function narrowedBy(prior: LogNormal, told: readonly Evidence[], scale: 'log' | 'plain'): LogNormal {
  let now = prior
  const weighed = told.filter((one) => one.on === 'weight')
  if (weighed.length > 0) now = narrowByWeight(now, weighed)
  const counts = told.filter((one) => one.on === 'strings')
  if (counts.length > 0) {
    const ooze = countedOoze(unknownOoze, counts)
    now = { median: (now.median / medians.strings.ooze) * meanOoze(ooze), spread: Math.min(now.spread, spreadOfOoze(ooze)) }
  }
  for (const one of told) if (one.on === 'constant') now = (scale === 'log' ? narrow : narrowPlain)(now, one)
  return now
}

/** Shares of a prior's variance that reels of one maker have in common, and that each has of its own. Assumed. */
const [COMMON, OWN] = [0.64, 0.36]

/** What is thought of a spool's number before it was read: where other spools of its maker and material ended, as far as those tell. */
function ofMaker(id: ConstantId, { spool, material }: Setup, all: readonly Told[]): LogNormal {
  const { median, spread, scale } = constantOf(id)
  const prior = { median, spread }
  if (spool?.maker === undefined || scale !== 'log') return prior
  const siblings = new Map<string, Evidence[]>()
  for (const { one, placed } of all) {
    if (placed.maker !== spool.maker || placed.material !== material.key || placed.spool === undefined || placed.spool === spool.key)
      continue
    siblings.set(placed.spool, [...(siblings.get(placed.spool) ?? []), one])
  }
  if (siblings.size === 0) return prior
  let maker = { median, spread: spread * Math.sqrt(COMMON) }
  for (const told of siblings.values()) {
    // What a sibling's own readings say without any prior: one that is as wide as makes no difference.
    const alone = narrowedBy({ median, spread: 10 }, told, scale)
    maker = narrow(maker, { values: [alone.median], noise: Math.hypot(alone.spread, spread * Math.sqrt(OWN)) })
  }
  return { median: maker.median, spread: Math.sqrt(maker.spread ** 2 + OWN * spread ** 2) }
}

/**
 * Failing flow as ladders of this spool with this hot end and nozzle tell: a line through their logarithms about what is assumed. Points
 * on the spool's record count as ladders of their own.
 */
function learnedLadder(
  setup: Setup,
  all: readonly PlacedEvidence[],
): { material: Setup['material']; ladder: Partial<Record<ConstantId, Learned>> } {
  const { material } = setup
  const own = all.filter((one) => belongsTo('pair', one, setup) && one.nozzle === setup.nozzle.key)
  const points = own.flatMap(({ evidence }) => evidence.filter((one) => one.on === 'ladder'))
  if (points.length === 0) return { material, ladder: {} }
  const [low, high] = material.nozzleRange
  const middle = (low + high) / 2
  const constants = setup.constants ?? medians
  const assumed = flowModel({ ...setup, material: { ...material, ladder: [] } }, middle, constants).failsAt
  const { ladderSlope } = constants.melt
  const slopeSpread = constantOf('melt.ladderSlope').spread
  const { spread } = constantOf('melt.flowLong')
  const before = flowLine(assumed * Math.exp((-ladderSlope * (middle - 210)) / 10), spread, ladderSlope, slopeSpread)
  const line = [...(material.ladder ?? []), ...points].reduce(withLadder, before)
  const hottest = Math.max(...points.map(({ temperature }) => temperature))
  const from = own.map((one) => one.from).join('; ')
  return {
    material: { ...material, ladder: [{ temperature: hottest, flow: flowAt(line, hottest).median }] },
    ladder: {
      'melt.ladder': { value: 1, spread: flowAt(line, hottest).spread, basis: 'measured', from },
      'melt.ladderSlope': { value: line.slope, spread: Math.sqrt(line.covariance[2]), basis: 'measured', from },
    },
  }
}
