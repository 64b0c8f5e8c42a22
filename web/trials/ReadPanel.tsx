import { changesBy } from '@sable/core/doubt/changes'
import type { PlacedEvidence } from '@sable/core/setup/learned'
import type { Setup } from '@sable/core/setup/resolve'
import { readTrial, type TrialAnswers } from '@sable/core/trials/read'
import type { Answers } from '@sable/core/trials/spec/question'
import type { TrialSpec } from '@sable/core/trials/spec/trial'
import type { Foretold, TrialKind } from '@sable/core/trials/table/kind'
import { InputError } from '@sable/core/units/errors'
import { useMemo, useState } from 'react'
import { Button } from '../ui/Button'
import { AnswerField } from './AnswerField'
import { ResultPanel } from './ResultPanel'

/** A print that is being read: the band in hand, the whole, and what it comes to at once. */
export function ReadPanel({
  kind,
  spec,
  setup,
  plain,
  before,
  foretold,
  place,
  answers,
  active,
  onAnswers,
  onKeep,
}: {
  kind: TrialKind
  spec: TrialSpec
  setup: Setup
  /** As its records alone say, and what was read so far. */
  plain: Setup
  before: readonly PlacedEvidence[]
  foretold: Foretold | undefined
  place: Omit<PlacedEvidence, 'evidence' | 'from'>
  answers: TrialAnswers
  active: number
  onAnswers: (answers: TrialAnswers) => void
  onKeep: (note: string, by: string) => void
}) {
  const [note, setNote] = useState('')
  const [by, setBy] = useState(reader.get)
  const band = spec.bands[active]
  const result = useMemo(() => {
    try {
      const outcome = readTrial(spec, setup, answers, foretold)
      return { outcome, changes: changesBy(plain, before, { ...place, evidence: outcome.evidence, from: 'this reading' }) }
    } catch (error) {
      if (!(error instanceof InputError)) throw error
      return { problem: error.sentence }
    }
  }, [spec, setup, plain, before, foretold, place, answers])
  const answered = [...answers.bands, answers.whole].some((one) => one && Object.keys(one).length > 0)
  const setBand = (id: string, value: number | string | undefined): void => {
    const bands = Array.from({ length: Math.max(answers.bands.length, active + 1) }, (_, i): Answers => answers.bands[i] ?? {})
    bands[active] = withAnswer(bands[active]!, id, value)
    onAnswers({ ...answers, bands })
  }
  return (
    <section aria-label="Reading" className="space-y-3">
      {kind.questions.band.length > 0 && band && (
        <div className="space-y-1.5">
          <h3 className="flex items-baseline gap-2 text-[12.5px] font-semibold">
            Band {active + 1}
            <span className="figure font-normal text-lantern-ink">
              {band.label} {kind.varied?.unit}
            </span>
            <span className="ml-auto text-[12px] font-normal text-muted">arrows, then 1–{firstChoices(kind)}</span>
          </h3>
          {kind.questions.band.map((question) => (
            <AnswerField
              key={`${active} ${question.id}`}
              where={`Band ${band.label}`}
              question={question}
              value={answers.bands[active]?.[question.id]}
              onAnswer={(value) => setBand(question.id, value)}
            />
          ))}
        </div>
      )}
      {kind.questions.whole.length > 0 && (
        <div className="space-y-1.5">
          {kind.questions.band.length > 0 && <h3 className="text-[12.5px] font-semibold">Of the whole</h3>}
          {kind.questions.whole.map((question) => (
            <AnswerField
              key={question.id}
              question={question}
              value={answers.whole[question.id]}
              onAnswer={(value) => onAnswers({ ...answers, whole: withAnswer(answers.whole, question.id, value) })}
            />
          ))}
        </div>
      )}
      <textarea
        aria-label="Note"
        placeholder="What else is to be seen"
        value={note}
        maxLength={4000}
        onChange={(event) => setNote(event.target.value)}
        className="block h-14 w-full resize-none rounded border border-line bg-sunk px-2 py-1 text-[12px]"
      />
      <label className="flex items-center gap-2 text-[12px]">
        <span className="text-muted">Read by</span>
        <input
          value={by}
          maxLength={80}
          onChange={(event) => setBy(event.target.value)}
          className="h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2"
        />
      </label>
      <div className="border-t border-line pt-2">
        {'problem' in result ? (
          <p role="alert" className="border-l-2 border-stop pl-2 text-[12px] text-stop">
            {result.problem}
          </p>
        ) : answered ? (
          <ResultPanel outcome={result.outcome} changes={result.changes} setup={setup} kept={false} onWrite={() => {}} onNext={() => {}} />
        ) : (
          <p className="text-[12px] text-muted">{kind.how}</p>
        )}
      </div>
      <Button
        tone="main"
        disabled={!answered || 'problem' in result}
        onClick={() => {
          reader.set(by)
          onKeep(note, by)
        }}
      >
        Keep this reading
      </Button>
    </section>
  )
}

const READER = 'sable.reader'
/** Who read last in this browser. */
const reader = {
  get: (): string => localStorage.getItem(READER) ?? '',
  set: (name: string): void => localStorage.setItem(READER, name),
}

const withAnswer = (answers: Answers, id: string, value: number | string | undefined): Answers => {
  const { [id]: _, ...rest } = answers
  return value === undefined ? rest : { ...rest, [id]: value }
}

const firstChoices = ({ questions }: TrialKind): number => {
  const first = questions.band.find((question) => question.as === 'choice')
  return first?.as === 'choice' ? first.of.length : 1
}
