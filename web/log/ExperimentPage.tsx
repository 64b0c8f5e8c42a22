import type { RuledOutList, StoredExperiment } from '@sable/contract/experiments'
import type { PrintLine } from '@sable/contract/prints'
import { faultIds, faults } from '@sable/core/faults/faults'
import { asMarkdown, confirmed, ruledOut, type ToldTry, type TriedPrint, toldTries, type verdicts } from '@sable/core/log/experiment'
import { sameFault } from '@sable/core/log/ruledOutBook'
import { useQueries, useQuery } from '@tanstack/react-query'
import { X } from 'lucide-react'
import { Link } from 'react-router'
import { ruledOutQuery } from '../api/experiments'
import { printQuery } from '../api/prints'
import { Button, IconButton } from '../ui/Button'
import { Choices } from '../ui/Choices'
import { dayOf } from '../ui/dates'
import { download, fileNameFrom } from '../ui/download'
import { EditableText } from '../ui/EditableText'
import { Select } from '../ui/Select'

const answers = [
  { id: 'helped', name: 'helped' },
  { id: 'same', name: 'did nothing' },
  { id: 'worse', name: 'made it worse' },
] as const satisfies readonly { id: (typeof verdicts)[number]; name: string }[]

/** Under these names cases of faults know what an experiment ruled out, and the other way round. */
const faultNames = faultIds.map((id) => faults[id].name)

/** One question: its prints in their order, what each changed and did, what is ruled out, and what came of it. */
export function ExperimentPage({
  experiment,
  lines,
  onChange,
  onRemove,
}: {
  experiment: StoredExperiment
  lines: readonly PrintLine[]
  onChange: (next: StoredExperiment) => void
  onRemove: () => void
}) {
  const { question, fault, held, tries, verdict } = experiment
  const prints = useQueries({ queries: tries.map(({ print }) => printQuery(print)) })
  const known = prints.flatMap(({ data }): TriedPrint[] =>
    data
      ? [
          {
            ...data.frozen,
            id: data.line.id,
            name: `${data.line.name} ${data.line.profile}`.trim(),
            at: data.line.startedAt ?? data.line.plannedAt,
          },
        ]
      : [],
  )
  const told = toldTries(experiment, known)
  const out = ruledOut(told)
  const { data: book = [] } = useQuery(ruledOutQuery)
  const last = told.at(-1)
  // By other questions about the same fault, on the same machine and from the same reel.
  const elsewhere = book.filter(
    (one) =>
      sameFault(one.fault, fault) &&
      one.printer === last?.printer &&
      one.spool === last.spool &&
      one.questions.some((own) => own !== question),
  )
  const ruledOutBefore = (label: string, is: string) => elsewhere.find((one) => one.label === label && one.is === is)
  const change = (more: Partial<StoredExperiment>): void => onChange({ ...experiment, ...more })
  const setTry = (print: string, more: Partial<(typeof tries)[number]>): void =>
    change({ tries: tries.map((one) => (one.print === print ? { ...one, ...more } : one)) })
  const others = lines.filter(({ id }) => !tries.some(({ print }) => print === id))
  const name = fileNameFrom(question)
  return (
    <article aria-label={question} className="max-w-[52rem] space-y-3 text-[12.5px]">
      <header className="flex items-center gap-2">
        <EditableText
          text={question}
          label="Question"
          onCommit={(text) => change({ question: text })}
          className="text-[16px] font-semibold"
        />
        <div className="flex-1" />
        <Button onClick={() => download(`${name}.md`, asMarkdown(experiment, told), 'text/markdown')}>Markdown</Button>
        <Button onClick={() => download(`${name}.json`, JSON.stringify({ ...experiment, tries: told }, null, 2), 'application/json')}>
          JSON
        </Button>
        <Button tone="danger" onClick={onRemove}>
          Delete
        </Button>
      </header>
      <Words label="Fault" value={fault} hint="what is to go away" of={faultNames} onKeep={(text) => change({ fault: text })} />
      <Words label="Held" value={held} hint="what stays as it is" onKeep={(text) => change({ held: text })} />
      <ol className="space-y-2">
        {told.map((one, i) => (
          <Try
            key={one.print}
            told={one}
            index={i}
            before={one.changed.length === 1 ? ruledOutBefore(one.changed[0]!.label, one.changed[0]!.is) : undefined}
            onDid={(did) => setTry(one.print, { did })}
            onRemove={() => change({ tries: tries.filter(({ print }) => print !== one.print) })}
          />
        ))}
      </ol>
      {others.length > 0 && (
        <Select
          label={tries.length === 0 ? 'It began with' : 'Next try'}
          value=""
          hint="choose a print"
          of={others.slice(0, 60).map(({ id, name: part, profile, plannedAt }) => ({ id, name: `${dayOf(plannedAt)} ${part} ${profile}` }))}
          onChange={(print) => change({ tries: [...tries, { print, note: '' }] })}
        />
      )}
      {out.length > 0 && (
        <section aria-label="Ruled out">
          <h3 className="mb-1 font-semibold">Ruled out</h3>
          <ul className="space-y-0.5">
            {out.map(({ label, was, is }) => (
              <li key={`${label} ${is}`} className="text-muted line-through decoration-strong">
                {label}: {was} → {is}
              </li>
            ))}
          </ul>
        </section>
      )}
      {elsewhere.length > 0 && (
        <section aria-label="Ruled out before">
          <h3 className="mb-1 font-semibold">Ruled out before, on this printer and reel</h3>
          <ul className="space-y-0.5 text-muted">
            {elsewhere.map(({ label, was, is, times, questions }) => (
              <li key={`${label} ${was} ${is}`}>
                <span className="line-through decoration-strong">
                  {label}: {was} → {is}
                </span>{' '}
                {times === 1 ? 'once' : `${times} times`}, by “{questions.join('”, “')}”
              </li>
            ))}
          </ul>
        </section>
      )}
      {confirmed(told).map(({ change: { label, was, is }, times }) => (
        <p key={`${label} ${is}`} className="border-l-2 border-lantern pl-2">
          {label}: {was} → {is} helped {times === 1 ? 'once; try it again to be sure.' : `${times} times.`}
        </p>
      ))}
      <Words label="Verdict" value={verdict} hint="what came of it, in a sentence" onKeep={(text) => change({ verdict: text })} />
    </article>
  )
}

function Try({
  told: { print, name, at, did, changed },
  index,
  before,
  onDid,
  onRemove,
}: {
  told: ToldTry
  index: number
  /** Where its change was ruled out already. */
  before: RuledOutList[number] | undefined
  onDid: (did: ToldTry['did']) => void
  onRemove: () => void
}) {
  return (
    <li className="border-b border-line/60 pb-2">
      <div className="flex items-baseline gap-3">
        <span className="figure text-muted">{index + 1}</span>
        <Link to={`/log/${print}`} className="underline decoration-line underline-offset-2">
          {name}
        </Link>
        <span className="figure text-[12px] text-muted">{dayOf(at)}</span>
        <div className="flex-1" />
        {index > 0 && <Choices label="" name={`Try ${index + 1}`} of={answers} value={did} onChange={onDid} />}
        <IconButton label={`Take try ${index + 1} out`} onClick={onRemove}>
          <X className="size-3.5" />
        </IconButton>
      </div>
      <p className="mt-0.5 pl-5 text-muted">
        {index === 0
          ? 'Where it began.'
          : changed.length === 0
            ? 'Nothing was changed.'
            : changed.map(({ label, was, is }) => `${label}: ${was} → ${is}`).join('; ')}
      </p>
      {before && (
        <p className="mt-0.5 ml-5 border-l-2 border-worse pl-2 text-worse">
          Ruled out before for this fault, on this printer and reel: “{before.questions.join('”, “')}”.
        </p>
      )}
      {changed.length > 1 && (
        <p className="mt-0.5 ml-5 border-l-2 border-worse pl-2 text-worse">
          {changed.length} things were changed at once: nothing is ruled out by it.
        </p>
      )}
    </li>
  )
}

/** A line of text that is kept when it is left. */
function Words({
  label,
  value,
  hint,
  of = [],
  onKeep,
}: {
  label: string
  value: string
  hint: string
  /** What is offered; anything else can be written as well. */
  of?: readonly string[]
  onKeep: (text: string) => void
}) {
  return (
    <label className="flex items-baseline gap-3">
      <span className="w-16 text-muted">{label}</span>
      <input
        key={value}
        defaultValue={value}
        placeholder={hint}
        maxLength={1000}
        {...(of.length > 0 ? { list: `${label}-offered` } : {})}
        onBlur={({ target }) => target.value !== value && onKeep(target.value)}
        onKeyDown={({ key, currentTarget }) => key === 'Enter' && currentTarget.blur()}
        className="h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2"
      />
      {of.length > 0 && (
        <datalist id={`${label}-offered`}>
          {of.map((name) => (
            <option key={name} value={name} />
          ))}
        </datalist>
      )}
    </label>
  )
}
