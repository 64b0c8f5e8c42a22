import type { StoredCase } from '@sable/contract/cases'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { caseMarkdown, ruledOutElsewhere, triedOf } from '@sable/core/faults/case'
import { type FaultId, faults } from '@sable/core/faults/faults'
import { asksOf, nextOf } from '@sable/core/faults/next'
import { questions } from '@sable/core/faults/table/questions'
import { weigh } from '@sable/core/faults/weigh'
import { X } from 'lucide-react'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { Button, IconButton } from '../ui/Button'
import { download, fileNameFrom } from '../ui/download'
import { NumberField } from '../ui/NumberField'
import { CauseRows } from './CauseRows'
import { FaultDrawing } from './FaultDrawing'
import { NextTry } from './NextTry'
import { Tries } from './Tries'
import { useCaseRequest, useScene } from './useScene'

interface Props {
  readonly one: StoredCase
  readonly part: StoredPart | undefined
  readonly shelf: Shelf
  readonly cases: readonly StoredCase[]
  readonly onChange: (next: StoredCase) => void
  readonly onRemove: () => void
}

/** One case: what is seen, what could tell more, causes with what speaks for and against them, the one next try, and what came of those before. */
export function CasePage({ one, part, shelf, cases, onChange, onRemove }: Props) {
  const fault = faults[one.fault as FaultId]
  const request = useCaseRequest(one, part, shelf)
  const { scene, failed } = useScene(one, request)
  // Elsewhere, on the same printer and from the same reel: what is known need not be tried again.
  const before = useMemo(
    () =>
      cases.filter(
        ({ id, fault: kind, candidate: { printer, spool } }) =>
          id !== one.id && kind === one.fault && printer === one.candidate.printer && spool === one.candidate.spool,
      ),
    [cases, one],
  )
  const tried = useMemo(() => [...triedOf(one), ...ruledOutElsewhere(before)], [one, before])
  const weighed = useMemo(() => (scene ? weigh(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const asks = useMemo(() => (scene ? asksOf(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const nexts = useMemo(() => (scene ? nextOf(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const change = (more: Partial<StoredCase>): void => onChange({ ...one, ...more })
  const answered = questions.filter(({ id }) => one.answers[id] !== undefined)
  const name = fileNameFrom(`${fault.name} ${one.partName}`)
  const of = `${one.partName}, ${one.candidate.name}`
  return (
    <article aria-label={`${fault.name}: ${of}`} className="max-w-[60rem] space-y-4 text-[12.5px]">
      <header className="flex items-start gap-4">
        <FaultDrawing fault={one.fault} className="h-20 w-24 shrink-0 rounded-md border border-line bg-sunk p-1.5" />
        <div className="min-w-0 flex-1 space-y-1">
          <h2 className="text-[16px] font-semibold">{fault.name}</h2>
          <p className="text-muted">{fault.looks}</p>
          <p>
            {one.lineup === undefined ? (
              of
            ) : (
              <Link to={`/bench/${one.lineup}/ledger`} className="underline decoration-line underline-offset-2">
                {of}
              </Link>
            )}
            , as it was when the case was opened
          </p>
        </div>
        <div className="w-48">
          <NumberField
            label="Seen at"
            unit="mm"
            width="w-20"
            hint="all over"
            value={one.atZ}
            onCommit={(value) => {
              if (value !== undefined && !(value >= 0 && value <= 3000)) return false
              const { atZ: _, ...rest } = one
              onChange(value === undefined ? rest : { ...rest, atZ: value })
              return true
            }}
          />
        </div>
        <Button onClick={() => download(`${name}.md`, caseMarkdown(one, of, weighed), 'text/markdown')}>Markdown</Button>
        <Button onClick={() => download(`${name}.json`, JSON.stringify(one, null, 2), 'application/json')}>JSON</Button>
        <Button tone="danger" onClick={onRemove}>
          Delete
        </Button>
      </header>
      {!part && (
        <p className="border-l-2 border-worse pl-2 text-worse">
          The part of this case is no longer here, so nothing can be computed of it.
        </p>
      )}
      {part && !request && <p className="border-l-2 border-worse pl-2 text-worse">The shelf no longer has what this was printed with.</p>}
      {failed !== undefined && <p className="border-l-2 border-worse pl-2 text-worse">{failed}</p>}
      {request && !scene && failed === undefined && (
        <p role="status" className="text-muted">
          The print is computed …
        </p>
      )}

      {scene && (
        <section aria-label="Questions" className="space-y-2">
          {answered.map(({ id, asks: words, answers }) => (
            <p key={id} className="flex items-center gap-2">
              <span className="text-muted">{words}</span> {answers[one.answers[id]!]?.words}
              <IconButton
                label={`Take the answer back: ${words}`}
                onClick={() => change({ answers: Object.fromEntries(Object.entries(one.answers).filter(([key]) => key !== id)) })}
              >
                <X className="size-3.5" />
              </IconButton>
            </p>
          ))}
          {asks[0] && one.closed === undefined && (
            <div className="rounded-md border border-line bg-raised p-3">
              <p className="mb-2">
                {asks[0].question.asks} <span className="text-[12px] text-muted">would tell most, {asks[0].bits.toFixed(2)} bits</span>
              </p>
              <div className="flex flex-wrap gap-2">
                {Object.entries(asks[0].question.answers).map(([id, { words }]) => (
                  <Button key={id} onClick={() => change({ answers: { ...one.answers, [asks[0]!.question.id]: id } })}>
                    {words}
                  </Button>
                ))}
              </div>
            </div>
          )}
        </section>
      )}

      {scene && request && one.closed === undefined && (
        <NextTry
          one={one}
          nexts={nexts}
          scene={scene}
          request={request}
          onTry={(made) => change({ tries: [...one.tries, made] })}
          waiting={one.tries.some(({ did }) => did === undefined)}
        />
      )}
      <Tries tries={one.tries} confirm={fault.confirm} onChange={(tries) => change({ tries })} />
      {scene && <CauseRows weighed={weighed} unranked={fault.unranked === true} />}
      {before.length > 0 && (
        <section aria-label="Cases before">
          <h3 className="mb-1 font-semibold">The same fault before, on this printer and reel</h3>
          <ul className="space-y-0.5">
            {before.map((other) => (
              <li key={other.id}>
                <Link to={`/faults/${other.id}`} className="underline decoration-line underline-offset-2">
                  {other.partName}
                </Link>{' '}
                <span className="text-muted">{other.closed ?? 'still open'}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <Closing one={one} onChange={onChange} />
    </article>
  )
}

/** The sentence that closes a case, and the way to open it again. */
function Closing({ one, onChange }: { one: StoredCase; onChange: (next: StoredCase) => void }) {
  const { closed, ...rest } = one
  if (closed !== undefined)
    return (
      <section aria-label="Found" className="flex items-center gap-3 border-l-2 border-lantern pl-3">
        <p className="flex-1">
          <span className="text-muted">Found:</span> {closed}
        </p>
        <Button onClick={() => onChange(rest)}>Open it again</Button>
      </section>
    )
  return (
    <form
      className="flex items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        const words = String(new FormData(event.currentTarget).get('found') ?? '').trim()
        if (words !== '') onChange({ ...one, closed: words })
      }}
    >
      <input
        name="found"
        aria-label="What it was"
        placeholder="What it was, in a sentence"
        maxLength={2000}
        className="h-7 min-w-0 flex-1 rounded border border-line bg-sunk px-2"
      />
      <Button type="submit">Close the case</Button>
    </form>
  )
}
