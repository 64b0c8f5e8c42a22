import { type ConstantId, constantIds, constantOf, medians, valueIn } from '../constants/constants'
import { EIGHTY } from '../doubt/doubt'
import { flowModel } from '../physics/melt/flowLimit'
import { knownOf } from '../setup/knownSetup'
import { learned, type PlacedEvidence } from '../setup/learned'
import { resolveSettings, type Setup } from '../setup/resolve'
import { InputError } from '../units/errors'
import { trialKinds } from './kinds'
import type { Answers, Question } from './spec/question'
import { heightsOf, type TrialSpec } from './spec/trial'
import type { Foretold, Outcome } from './table/kind'

/** What was read: of each band, and of the whole. */
export interface TrialAnswers {
  readonly bands: readonly Answers[]
  readonly whole: Answers
}

/**
 * What a reading comes to. Whatever was answered is checked against its question first.
 *
 * @throws InputError naming the answer that cannot be, and what would do
 */
export function readTrial(spec: TrialSpec, setup: Setup, { bands, whole }: TrialAnswers, foretold?: Foretold): Outcome {
  const kind = trialKinds[spec.kind]
  const top = spec.bands.length > 0 ? heightsOf(spec, spec.bands.length - 1).toZ : Infinity
  if (bands.length > spec.bands.length)
    throw new InputError(
      'reading-bands',
      `There are readings of ${bands.length} bands; the print has ${spec.bands.length}.`,
      kind.name,
      'Read it again: the trial was changed since.',
    )
  for (const [i, answers] of bands.entries()) checkAnswers(answers, kind.questions.band, `band ${spec.bands[i]!.label}`)
  checkAnswers(whole, kind.questions.whole, kind.name)
  // Heights are told by a ruler that stands on the bed.
  if (kind.bandsRun === 'up' && kind.varied)
    for (const id of ['front', 'back', 'height'])
      if (typeof whole[id] === 'number' && whole[id] > top + spec.size.band / 2)
        throw new InputError(
          'reading-above',
          `${whole[id]} mm is above the top of the print, ${top.toFixed(1)} mm.`,
          kind.name,
          'Measure from the bed up to the place.',
        )
  return kind.judge({ spec, setup, bands, whole, foretold })
}

function checkAnswers(answers: Answers, questions: readonly Question[], where: string): void {
  for (const [id, given] of Object.entries(answers)) {
    const question = questions.find((one) => one.id === id)
    if (!question)
      throw new InputError(
        'reading-unknown',
        `Nothing asks for "${id}".`,
        where,
        `Answer ${questions.map((one) => one.id).join(', ') || 'nothing here'}.`,
      )
    if (question.as === 'choice' && !question.of.some((one) => one.id === given))
      throw new InputError(
        'reading-choice',
        `"${given}" is no answer to "${question.label}".`,
        where,
        `Give one of ${question.of.map((one) => one.id).join(', ')}.`,
      )
    if (question.as === 'number' && !(typeof given === 'number' && given >= question.least && given <= question.most))
      throw new InputError(
        'reading-number',
        `${given} is not possible for "${question.label}".`,
        where,
        `Give ${question.least} to ${question.most}${question.unit === '' ? '' : ` ${question.unit}`}.`,
      )
  }
}

/** A constant as it is known: its value, one standard deviation on its scale, and what it rests on. */
export interface Standing {
  readonly value: number
  readonly spread: number
  readonly basis: 'measured' | 'calculated' | 'assumed'
}

export interface ConstantChange {
  readonly id: ConstantId
  readonly label: string
  readonly unit: string
  readonly before: Standing
  readonly after: Standing
}

export const standingOf = (setup: Setup, id: ConstantId): Standing => {
  const { spread, basis } = knownOf(setup, id)
  // What a ladder tells is a flow, not the factor that it leaves to doubt.
  if (id === 'melt.ladder') return failingFlow(setup)
  return { value: setup.known?.[id]?.value ?? valueIn(setup.constants ?? medians, id), spread, basis }
}

/** Flow at which it fails at the temperature that it is printed at: read, or assumed by its class. */
function failingFlow(setup: Setup): Standing {
  const { failsAt, basis } = flowModel(setup, resolveSettings(setup, {}).settings.nozzleTemperature, setup.constants ?? medians)
  const { spread } = basis === 'measured' ? knownOf(setup, 'melt.ladder') : constantOf('melt.flowLong')
  return { value: failsAt, spread, basis }
}

/**
 * What evidence makes of the constants of a setup, beside what they are without it.
 *
 * @param setup as its records say, nothing learned yet
 */
export function changesBy(setup: Setup, before: readonly PlacedEvidence[], more: PlacedEvidence): ConstantChange[] {
  const [was, is] = [learned(setup, before), learned(setup, [...before, more])]
  return constantIds.flatMap((id) => {
    const [old, fresh] = [standingOf(was, id), standingOf(is, id)]
    const { label } = constantOf(id)
    const unit = id === 'melt.ladder' ? 'mm³/s' : constantOf(id).unit
    return Math.abs(old.value - fresh.value) < 1e-12 && Math.abs(old.spread - fresh.spread) < 1e-12
      ? []
      : [{ id, label, unit, before: old, after: fresh }]
  })
}

/** Smallest and largest value that a constant may well have: its 80 % range. */
export function rangeOfStanding(id: ConstantId, { value, spread }: Standing): readonly [low: number, high: number] {
  const by = EIGHTY * spread
  return constantOf(id).scale === 'log' ? [value * Math.exp(-by), value * Math.exp(by)] : [value - by, value + by]
}
