import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { asModelled } from '@sable/core/mesh/place'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { lazy, Suspense, useEffect, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { createLineup, lineupsQuery, removedLineupsQuery } from '../../api/lineups'
import { partsQuery } from '../../api/parts'
import { shelfQuery } from '../../api/shelf'
import { purposes } from '../../desk/purposes'
import { Button } from '../../ui/Button'
import { Loading } from '../../ui/Loading'
import { Notice, type Refusal } from '../../ui/Notice'
import { purposeWords } from '../part/limits'
import { RemovedLineups } from '../shell/RemovedLineups'
import { type Answers, answersFor, keepAnswers, setupOfAnswers } from './answers'
import { PartDrop } from './PartDrop'
import { Questions } from './Questions'
import { Suggestions } from './Suggestions'
import { useSuggestions } from './useSuggestions'

// The 3D package is the heaviest of all; the questions must not wait for it.
const PartThumbnail = lazy(() => import('../part/PartThumbnail'))

/** A lineup begins: a part, four short questions that can all be skipped, and three candidates that answer them. */
export function BeginScreen() {
  const parts = useQuery(partsQuery)
  const shelf = useQuery(shelfQuery)
  useEffect(() => {
    document.title = 'A new lineup · Sable Lantern'
  }, [])
  if (!parts.data || !shelf.data) return <Loading what="the bench" failed={parts.failureReason ?? shelf.failureReason} />
  return <Begin parts={parts.data} shelf={shelf.data} />
}

function Begin({ parts, shelf }: { parts: readonly StoredPart[]; shelf: Shelf }) {
  const [params, setParams] = useSearchParams()
  const part = parts.find(({ id }) => id === params.get('part'))
  const [refusal, setRefusal] = useState<Refusal>()
  const choose = (chosen: StoredPart): void => setParams({ part: chosen.id }, { replace: true })
  return (
    <section aria-label="A new lineup" className="min-h-0 flex-1 overflow-auto">
      <div className="mx-auto w-full max-w-[76rem] px-6 py-5">
        <h1 className="text-[17px] font-semibold">A new lineup</h1>
        <p className="mt-0.5 mb-4 max-w-2xl text-[12.5px] text-muted">
          A part, and the ways in which it could be printed, side by side. Whatever you leave as it is can be changed later.
        </p>
        {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
        {part ? (
          <Asked key={part.id} part={part} shelf={shelf} onOther={() => setParams({}, { replace: true })} onRefusal={setRefusal} />
        ) : (
          <>
            <PartDrop parts={parts} onPart={choose} onRefusal={setRefusal} />
            <Removed />
          </>
        )}
      </div>
    </section>
  )
}

/** Where no lineup is open: the way back to those that were removed. */
function Removed() {
  const removed = useQuery(removedLineupsQuery)
  const [listing, setListing] = useState(false)
  return (
    <>
      {!!removed.data?.length && (
        <Button className="mt-4" onClick={() => setListing(true)}>
          Removed lineups …
        </Button>
      )}
      {listing && <RemovedLineups onClose={() => setListing(false)} />}
    </>
  )
}

function Asked({
  part,
  shelf,
  onOther,
  onRefusal,
}: {
  part: StoredPart
  shelf: Shelf
  onOther: () => void
  onRefusal: (refusal: Refusal) => void
}) {
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [answers, setAnswers] = useState<Answers>(() => answersFor(shelf, purposes.of(part.id)))
  const setup = setupOfAnswers(answers, shelf)
  const { suggestions, done, of } = useSuggestions(part, answers, shelf)
  const open = async (): Promise<void> => {
    try {
      const { printer, nozzle, material, spool, purpose } = answers
      keepAnswers(answers)
      purposes.keep(part.id, purpose)
      const lineup = await createLineup({
        name: part.name,
        partId: part.id,
        placement: asModelled,
        purpose,
        candidates: suggestions.map(({ roles, tried }) => ({
          id: crypto.randomUUID(),
          name: roles.join(', ') || 'nearest',
          printer,
          nozzle,
          material,
          ...(spool === undefined ? {} : { spool }),
          values: tried.values,
          overrides: [],
        })),
      })
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${lineup.id}/ledger`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  return (
    <div className="grid grid-cols-[23rem_minmax(0,1fr)] gap-8">
      <div>
        <p className="mb-3 flex items-baseline gap-3 border-b border-line pb-2">
          <span className="truncate text-[15px] font-semibold">{part.name}</span>
          <span className="figure text-[12px] whitespace-nowrap text-muted">
            {part.report.sizeMm.map((mm) => mm.toFixed(1)).join(' × ')} mm
          </span>
          <Button className="ml-auto h-6 shrink-0" onClick={onOther}>
            Another
          </Button>
        </p>
        <div className="mb-4 h-44 overflow-hidden rounded-md border border-line bg-sunk">
          <Suspense fallback={null}>
            <PartThumbnail partId={part.id} contentKey={part.contentKey} fileName={part.fileName} placement={asModelled} />
          </Suspense>
        </div>
        <Questions answers={answers} shelf={shelf} onChange={(more) => setAnswers({ ...answers, ...more })} onRefusal={onRefusal} />
      </div>
      <div>
        <p className="mb-3 border-b border-line pb-2 text-[12.5px] text-muted">{purposeWords(answers.purpose)}</p>
        <Suggestions suggestions={suggestions} done={done} of={of} canBegin={setup !== undefined} onOpen={() => void open()} />
      </div>
    </div>
  )
}
