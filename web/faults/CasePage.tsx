import type { StoredCase } from '@sable/contract/cases'
import type { RuledOutList } from '@sable/contract/experiments'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { caseMarkdown, toldByOthers, triedOf } from '@sable/core/faults/case'
import { type FaultId, faults } from '@sable/core/faults/faults'
import { asksOf, nextOf } from '@sable/core/faults/next'
import { questions } from '@sable/core/faults/table/questions'
import { weigh } from '@sable/core/faults/weigh'
import { ruledOutByLog } from '@sable/core/log/ruledOutCauses'
import { useQuery } from '@tanstack/react-query'
import { X } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { ruledOutQuery } from '../api/experiments'
import { HelpButton } from '../handbook/HelpButton'
import { Button, IconButton } from '../ui/Button'
import { download, fileNameFrom } from '../ui/download'
import type { Refusal } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { CauseRows } from './CauseRows'
import { caseFile } from './caseFile'
import { FaultDrawing } from './FaultDrawing'
import { Found } from './Found'
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
  readonly onRefusal: (refusal: Refusal) => void
}

const noBook: RuledOutList = []

/** One case: what is seen, what could tell more, causes with what speaks for and against them, the one next try, and what came of those before. */
export function CasePage({ one, part, shelf, cases, onChange, onRemove, onRefusal }: Props) {
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
  const { data: book = noBook } = useQuery(ruledOutQuery)
  const tried = useMemo(
    () => [
      ...triedOf(one),
      ...toldByOthers(
        one,
        cases.filter(({ id }) => id !== one.id),
      ),
      ...(scene ? ruledOutByLog(one.fault, one.candidate, book, scene) : []),
    ],
    [one, cases, book, scene],
  )
  const weighed = useMemo(() => (scene ? weigh(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const asks = useMemo(() => (scene ? asksOf(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const nexts = useMemo(() => (scene ? nextOf(fault, scene, one.answers, tried) : []), [fault, scene, one.answers, tried])
  const gone = one.tries.at(-1)?.did === 'fixed' && !one.tries.at(-1)?.mixed ? one.tries.at(-1) : undefined
  const more = (fault.confirm ?? 1) - (gone?.times ?? 0)
  const [goesOn, setGoesOn] = useState(false)
  const change = (to: Partial<StoredCase>): void => onChange({ ...one, ...to })
  const answered = questions.filter(({ id }) => one.answers[id] !== undefined)
  const name = fileNameFrom(`${fault.name} ${one.partName}`)
  const of = `${one.partName}, ${one.candidate.name}`
  return (
    <article aria-label={`${fault.name}: ${of}`} className="max-w-[60rem] space-y-4 text-[12.5px]">
      <header className="flex items-start gap-4">
        <FaultDrawing fault={one.fault} className="h-20 w-24 shrink-0 rounded-md border border-line bg-sunk p-1.5" />
        <div className="min-w-0 flex-1 space-y-1">
          <h2 className="flex items-center gap-1 text-[16px] font-semibold">
            {fault.name} <HelpButton of={`fault/${one.fault}`} name="this fault" />
          </h2>
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
        <Button onClick={() => download(`${name}.json`, JSON.stringify(caseFile(one, weighed), null, 2), 'application/json')}>JSON</Button>
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

      {gone && one.closed === undefined && (
        <p className="flex items-center gap-3 border-l-2 border-lantern pl-3">
          <span className="flex-1">
            {more > 0
              ? `It is gone, and it comes and goes: print the same ${more === 1 ? 'once' : `${more} times`} more before you close the case.`
              : 'It is gone. Close the case below with what it was.'}
          </span>
          {!goesOn && <Button onClick={() => setGoesOn(true)}>Try something else all the same</Button>}
        </p>
      )}
      {scene && request && one.closed === undefined && (!gone || goesOn) && (
        <NextTry
          one={one}
          nexts={nexts}
          scene={scene}
          request={request}
          onTry={(made) => change({ tries: [...one.tries, made] })}
          waiting={one.tries.some(({ did }) => did === undefined)}
        />
      )}
      <Tries tries={one.tries} onChange={(tries) => change({ tries })} />
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
      <Found one={one} scene={scene} weighed={weighed} shelf={shelf} onChange={onChange} onRefusal={onRefusal} />
    </article>
  )
}
