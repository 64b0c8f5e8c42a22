import type { Answers } from '@sable/core/trials/spec/question'
import type { TrialKind } from '@sable/core/trials/table/kind'
import type { BandMark } from './ThingDrawing'

/** A band's answer in a word, by the first of its questions. */
export function markOf({ questions }: TrialKind, answers: Answers | undefined): BandMark | undefined {
  const question = questions.band.find((one) => one.as === 'choice')
  const given = question && answers?.[question.id]
  if (question?.as !== 'choice' || given === undefined) return undefined
  const option = question.of.find(({ id }) => id === given)
  return option && { text: option.name.split(',')[0]!.toLowerCase(), tone: goodness[option.id] ?? 'bad' }
}

/** Which answers are good news. */
const goodness: Readonly<Record<string, BandMark['tone']>> = {
  clean: 'good',
  none: 'good',
  whole: 'good',
  straight: 'good',
  shiny: 'good',
  sharp: 'good',
  between: 'between',
  hairs: 'between',
  rough: 'between',
  sags: 'between',
}
