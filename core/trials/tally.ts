import type { Evidence } from '../learning/evidence'
import { LADDER_NOISE } from '../learning/flowLine'
import { definitionOf, isSettingName } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import type { Spool } from '../shelf/spool'
import { kindsInOrder, trialKinds } from './kinds'
import { judgeTrial, type TrialAnswers } from './read'
import type { TrialKindId, TrialSpec } from './spec/trial'
import type { Advice, Foretold, NextTrial, Outcome, TrialKind } from './table/kind'

/** A reading with the trial that it is of. */
export interface ReadTrial extends TrialAnswers {
  readonly id: string
  readonly spec: TrialSpec
  readonly foretold?: Foretold | undefined
  readonly printer: string
  readonly nozzle: string
  readonly spool?: string | undefined
  readonly material: string
  /** ISO time. */
  readonly readAt: string
  readonly leftOut: boolean
}

/** `record`: a number stands on the record that no reading here tells of. */
export type RungState = 'unknown' | 'record' | 'known' | 'old' | 'contradicts'

/** One kind of trial as it stands for a spool on a machine. */
export interface Rung {
  readonly kind: TrialKind
  readonly state: RungState
  /** Newest first, with what each comes to. */
  readonly readings: readonly { readonly reading: ReadTrial; readonly outcome: Outcome }[]
  /** Why it is old, or what contradicts what. */
  readonly why?: string
  /** What stands on the record of the spool or the printer, as short as a cell. */
  readonly record?: string
}

export interface Tally {
  readonly rungs: readonly Rung[]
  /** What comes next in the practised order. */
  readonly next: NextTrial | undefined
}

/** What is tried again with another nozzle (CP-N10, common practice). */
export const retestedAfterNozzle: readonly TrialKindId[] = ['temperature', 'bed', 'flowLadder', 'retraction']
/** What water in the filament spoils. */
const spoiledByWater: readonly TrialKindId[] = ['dryness', 'temperature', 'retraction', 'fan']

/** Where a spool stands on a machine: what is known of it, by what, and what comes next. */
export function tallyOf(all: readonly ReadTrial[], setup: Setup): Tally {
  const rungs = kindsInOrder.map((kind) => rungOf(kind, all, setup))
  return { rungs, next: nextOf(rungs, setup) }
}

function rungOf(kind: TrialKind, all: readonly ReadTrial[], setup: Setup): Rung {
  const own = all
    .filter(({ spec, printer, spool, material }) => {
      if (spec.kind !== kind.id || printer !== setup.printer.key) return false
      return kind.owner === 'printer' || (spool === setup.spool?.key && material === setup.material.key)
    })
    .toSorted((a, b) => b.readAt.localeCompare(a.readAt))
  const readings = own.map((reading) => ({
    reading,
    outcome: judgeTrial(reading.spec, setup, { bands: reading.bands, whole: reading.whole }, reading.foretold),
  }))
  const counted = readings.filter(({ reading, outcome }) => !reading.leftOut && outcome.short !== undefined)
  const [last] = counted
  const record = onRecord(kind, setup)
  if (!last) return record === undefined ? { kind, state: 'unknown', readings } : { kind, state: 'record', readings, record }
  const contradiction = contradictionOf(counted)
  if (contradiction !== undefined) return { kind, state: 'contradicts', readings, why: contradiction }
  const old = oldBecause(kind.id, last.reading, setup)
  return old === undefined ? { kind, state: 'known', readings } : { kind, state: 'old', readings, why: old }
}

/** The number that this kind would find, as the record says it. */
function onRecord({ id, advises, owner }: TrialKind, { spool, printer }: Setup): string | undefined {
  if (id === 'flowLadder') {
    const [point] = spool?.ladder ?? []
    return point && `${point.flow} mm³/s at ${point.temperature} °C`
  }
  for (const setting of advises) {
    const value = isSettingName(setting) ? (owner === 'spool' ? spool?.defaults : printer.defaults)?.[setting] : printer[setting]
    if (value === undefined) continue
    const definition = isSettingName(setting) ? definitionOf(setting) : undefined
    return `${value} ${definition?.kind === 'number' ? definition.unit : 'Hz'}`.trim()
  }
  return undefined
}

function oldBecause(id: TrialKindId, { nozzle, readAt }: ReadTrial, { nozzle: own, spool }: Setup): string | undefined {
  if (nozzle !== own.key && retestedAfterNozzle.includes(id)) return 'read with another nozzle'
  const dried = lastDried(spool)
  if (dried !== undefined && dried > readAt.slice(0, 10) && spoiledByWater.includes(id)) return `dried since, on ${dried}`
  return undefined
}

const lastDried = (spool: Spool | undefined): string | undefined => [...(spool?.dried ?? [])].sort().at(-1)

/** How far two readings of one thing may be apart before they contradict each other: by what they advise, in its own unit. Assumed. */
const TOLERATED: Partial<Record<Advice['setting'], number>> = {
  nozzleTemperature: 8,
  retractLength: 1,
  fanSpeed: 45,
  supportAngle: 10,
  flow: 6,
  minLayerTime: 6,
  frameFrequency: 10,
}
/** Standard deviations between what two readings say of one constant. */
const APART = 3

/** Of readings with one nozzle, the newest first: a sentence with both, where the newest contradicts one before. */
function contradictionOf(readings: Rung['readings']): string | undefined {
  const [last, ...before] = readings
  for (const other of before) {
    if (other.reading.nozzle !== last!.reading.nozzle) continue
    const differs =
      last!.outcome.advice.some(({ setting, value }) => {
        const then = other.outcome.advice.find((one) => one.setting === setting)
        return then !== undefined && Math.abs(Number(then.value) - Number(value)) > (TOLERATED[setting] ?? Infinity)
      }) || last!.outcome.evidence.some((one) => other.outcome.evidence.some((then) => contradict(one, then)))
    if (differs)
      return `${last!.outcome.short} on ${last!.reading.readAt.slice(0, 10)}, ${other.outcome.short} on ${other.reading.readAt.slice(0, 10)}`
  }
  return undefined
}

/** Whether two readings of one constant are further apart than both scatter by. */
function contradict(a: Evidence, b: Evidence): boolean {
  if (a.on === 'ladder' && b.on === 'ladder')
    return a.temperature === b.temperature && Math.abs(Math.log(a.flow / b.flow)) > APART * Math.SQRT2 * LADDER_NOISE
  if (a.on !== 'constant' || b.on !== 'constant' || a.constant !== b.constant) return false
  const [one, other] = [a, b].map(({ values }) => values.reduce((sum, value) => sum + value, 0) / values.length) as [number, number]
  if (one <= 0 || other <= 0) return false
  return Math.abs(Math.log(one / other)) > APART * Math.hypot(a.noise, b.noise)
}

/** The order in which a spool is got to know; what is printed only where it matters comes after those. */
const BASICS: readonly TrialKindId[] = ['dryness', 'temperature', 'bed', 'flowLadder', 'retraction', 'fan', 'allRound']

/** First what an answer asks for itself, as long as its kind is not settled; else the first of the basics that is not known. */
function nextOf(rungs: readonly Rung[], setup: Setup): NextTrial | undefined {
  const stateOf = (id: TrialKindId): Rung => rungs.find(({ kind }) => kind.id === id)!
  const dryness = stateOf('dryness')
  if (setup.stock?.wet && dryness.readings[0]?.outcome.short !== 'dry')
    return { kind: 'dryness', why: 'Probably wet: dry it first, wet filament defeats every other setting.' }
  for (const id of BASICS) {
    const { state, readings, why } = stateOf(id)
    if (state === 'unknown') return { kind: id, why: `Not known yet: ${trialKinds[id].tells}.` }
    if (state === 'old' || state === 'contradicts')
      return { kind: id, why: state === 'old' ? `To be tried again: ${why}.` : `Two readings contradict each other: ${why}.` }
    const follow = readings[0]?.outcome.next
    if (follow?.kind === id && follow.range) return follow
  }
  return undefined
}
