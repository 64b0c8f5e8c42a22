import type { Setup } from '../setup/resolve'
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
  return judgeTrial(spec, setup, { bands, whole }, foretold)
}

/** The same of what was kept: answers that nothing asks for any more say nothing. */
export const judgeTrial = (spec: TrialSpec, setup: Setup, answers: TrialAnswers, foretold?: Foretold): Outcome =>
  trialKinds[spec.kind].judge({ spec, setup, ...answers, foretold })

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
