import type { Question } from '@sable/core/trials/spec/question'
import { Choices } from '../ui/Choices'
import { NumberField } from '../ui/NumberField'

/** One question about a print: a few words to choose from, or a number. Pressing what is chosen takes it back. */
export function AnswerField({
  question,
  value,
  onAnswer,
  where = '',
}: {
  question: Question
  value: number | string | undefined
  onAnswer: (value: number | string | undefined) => void
  /** Which band, for those who hear it. */
  where?: string
}) {
  if (question.as === 'number')
    return (
      <NumberField
        label={question.label}
        name={[where, question.label].filter((text) => text !== '').join(', ')}
        unit={question.unit}
        value={typeof value === 'number' ? value : undefined}
        problem={`${question.least} to ${question.most}`}
        width="w-20"
        onCommit={(typed) => {
          if (typed !== undefined && !(typed >= question.least && typed <= question.most)) return false
          onAnswer(typed)
          return true
        }}
      />
    )
  return (
    <Choices
      label={question.label}
      name={[where, question.label].filter((text) => text !== '').join(', ')}
      of={question.of}
      value={typeof value === 'string' ? value : undefined}
      numbered
      onChange={onAnswer}
    />
  )
}
