import type { Question } from '@sable/core/trials/spec/question'
import clsx from 'clsx'
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
    <fieldset className="flex flex-wrap items-center gap-1 text-[12px]">
      <legend className="sr-only">{[where, question.label].filter((text) => text !== '').join(', ')}</legend>
      <span aria-hidden className="min-w-24 flex-1 text-muted">
        {question.label}
      </span>
      {question.of.map(({ id, name }, i) => (
        <button
          key={id}
          type="button"
          aria-pressed={value === id}
          onClick={() => onAnswer(value === id ? undefined : id)}
          className={clsx(
            'h-6 rounded border px-1.5 text-[12px]',
            value === id ? 'border-lantern bg-glow text-lantern-ink' : 'border-line bg-raised hover:border-strong',
          )}
        >
          <span aria-hidden className="figure mr-1 text-[10px] text-muted">
            {i + 1}
          </span>
          {name}
        </button>
      ))}
    </fieldset>
  )
}
