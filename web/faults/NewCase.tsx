import { type FaultId, faultIds, faults } from '@sable/core/faults/faults'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { casesQuery, openCase } from '../api/cases'
import { momentOf } from '../ui/dates'
import type { Refusal } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'
import { useAddress } from '../ui/useAddress'
import { FaultDrawing } from './FaultDrawing'
import { type Failed, useFailedColumn, useFailedPrint } from './useFailed'

/** A case begins: which print failed, where on it, and what it looks like. */
export function NewCase({ onRefusal }: { onRefusal: (refusal: Refusal) => void }) {
  const { get, set } = useAddress()
  const printId = get('print')
  const ofPrint = useFailedPrint(printId)
  const { lineups, chosen, candidates, candidate, failed: ofColumn } = useFailedColumn(get('lineup'), get('candidate'))
  const failed: Failed | undefined = printId === undefined ? ofColumn : ofPrint.failed
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  const atZ = get('z') === undefined ? undefined : Number(get('z'))
  const begin = async (fault: FaultId): Promise<void> => {
    if (!failed || busy) return
    setBusy(true)
    try {
      const place = atZ !== undefined && Number.isFinite(atZ) ? { atZ } : {}
      const { id } = await openCase({ fault, note: '', ...place, answers: {}, tries: [], ...failed })
      await queries.invalidateQueries(casesQuery)
      await navigate(`/faults/${id}`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
    setBusy(false)
  }
  if (lineups?.length === 0 && printId === undefined)
    return <p className="p-10 text-center text-muted">No lineup yet. A case is about a print: make a lineup of its part first.</p>
  return (
    <section aria-label="New case" className="max-w-[64rem]">
      <h2 className="text-[16px] font-semibold">What went wrong?</h2>
      <div className="my-3 flex flex-wrap items-center gap-4">
        {printId === undefined ? (
          <>
            <Select
              label="Printed from"
              value={chosen ?? ''}
              of={(lineups ?? []).map(({ id, name }) => ({ id, name }))}
              className="max-w-72"
              onChange={(id) => set({ lineup: id, candidate: undefined })}
            />
            <Select label="as" name="Candidate" value={candidate?.id ?? ''} of={candidates} onChange={(id) => set({ candidate: id })} />
          </>
        ) : (
          ofPrint.print && (
            <p>
              <span className="text-muted">The print of</span>{' '}
              <Link to={`/log/${printId}`} className="underline decoration-line underline-offset-2">
                {ofPrint.print.line.name} {ofPrint.print.line.profile}
              </Link>
              <span className="figure ml-2 text-[12px] text-muted">
                {momentOf(ofPrint.print.line.startedAt ?? ofPrint.print.line.plannedAt)}
              </span>
            </p>
          )
        )}
        <div className="w-48">
          <NumberField
            label="Seen at"
            unit="mm"
            hint="all over"
            width="w-20"
            value={atZ}
            onCommit={(value) => {
              if (value !== undefined && !(value >= 0)) return false
              set({ z: value === undefined ? undefined : String(value) })
              return true
            }}
          />
        </div>
      </div>
      {ofPrint.print && !ofPrint.failed && (
        <p className="mb-2 border-l-2 border-worse pl-2 text-worse">
          The part of this print is no longer here, so nothing can be computed of it.
        </p>
      )}
      <p className="mb-2 text-[12.5px] text-muted">Choose what it looks like.</p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(11rem,1fr))] gap-2">
        {faultIds.map((id) => (
          <li key={id}>
            <button
              type="button"
              disabled={!failed || busy}
              onClick={() => void begin(id)}
              className="flex h-full w-full flex-col items-start gap-1 rounded-md border border-line bg-raised p-2 text-left hover:border-strong disabled:opacity-45"
            >
              <FaultDrawing fault={id} className="h-16 w-full text-ink" />
              <span className="text-[12.5px] font-medium">{faults[id].name}</span>
              <span className="text-[12px] leading-snug text-muted">{faults[id].looks}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  )
}
