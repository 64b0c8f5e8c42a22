import { type FaultId, faultIds, faults } from '@sable/core/faults/faults'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { asRefusal } from '../api/asRefusal'
import { casesQuery, openCase } from '../api/cases'
import { fetchLineup, lineupsQuery } from '../api/lineups'
import { partsQuery } from '../api/parts'
import type { Refusal } from '../ui/Notice'
import { NumberField } from '../ui/NumberField'
import { Select } from '../ui/Select'
import { useAddress } from '../ui/useAddress'
import { FaultDrawing } from './FaultDrawing'

/** A case begins: which print failed, where on it, and what it looks like. */
export function NewCase({ onRefusal }: { onRefusal: (refusal: Refusal) => void }) {
  const { get, set } = useAddress()
  const lineups = useQuery(lineupsQuery)
  const parts = useQuery(partsQuery)
  const lineupId = get('lineup') ?? lineups.data?.[0]?.id
  const lineup = useQuery({
    queryKey: ['failed lineup', lineupId],
    queryFn: () => fetchLineup(lineupId!),
    enabled: lineupId !== undefined,
  })
  const queries = useQueryClient()
  const navigate = useNavigate()
  const [busy, setBusy] = useState(false)
  const candidates = lineup.data?.candidates ?? []
  const candidate = candidates.find(({ id }) => id === get('candidate')) ?? candidates[0]
  const part = parts.data?.find(({ id }) => id === lineup.data?.partId)
  const atZ = get('z') === undefined ? undefined : Number(get('z'))
  const begin = async (fault: FaultId): Promise<void> => {
    if (!lineup.data || !candidate || !part || busy) return
    setBusy(true)
    try {
      const { id, partId, placement, purpose } = lineup.data
      const { id: made } = await openCase({
        fault,
        note: '',
        ...(atZ !== undefined && Number.isFinite(atZ) ? { atZ } : {}),
        answers: {},
        tries: [],
        candidate,
        partId,
        partName: part.name,
        placement,
        purpose,
        lineup: id,
      })
      await queries.invalidateQueries(casesQuery)
      await navigate(`/faults/${made}`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
    setBusy(false)
  }
  if (lineups.data?.length === 0)
    return <p className="p-10 text-center text-muted">No lineup yet. A case is about a print: make a lineup of its part first.</p>
  return (
    <section aria-label="New case" className="max-w-[64rem]">
      <h2 className="text-[16px] font-semibold">What went wrong?</h2>
      <div className="my-3 flex flex-wrap items-center gap-4">
        <Select
          label="Printed from"
          value={lineupId ?? ''}
          of={(lineups.data ?? []).map(({ id, name }) => ({ id, name }))}
          className="max-w-72"
          onChange={(id) => set({ lineup: id, candidate: undefined })}
        />
        <Select label="as" name="Candidate" value={candidate?.id ?? ''} of={candidates} onChange={(id) => set({ candidate: id })} />
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
      <p className="mb-2 text-[12.5px] text-muted">Choose what it looks like.</p>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(11rem,1fr))] gap-2">
        {faultIds.map((id) => (
          <li key={id}>
            <button
              type="button"
              disabled={!candidate || !part || busy}
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
