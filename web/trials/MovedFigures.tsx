import type { Lineup } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { figures } from '@sable/core/figures/figures'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { fetchLineup, lineupsQuery } from '../api/lineups'
import { partsQuery } from '../api/parts'
import { lastLineup } from '../bench/shell/lastLineup'
import { requestFor } from '../predictions/predictionStore'
import { useTried } from '../predictions/useTried'
import { Button } from '../ui/Button'
import type { TrialPlaceChoice } from './useTrialPlace'

/** A change of less than this share is none. */
const WORTH = 0.002

/** What all readings of a spool and a machine make of the figures of the lineup that was open last, or changed last. Worked out on request. */
export function MovedFigures({ shelf, place }: { shelf: Shelf; place: TrialPlaceChoice }) {
  const [asked, setAsked] = useState(false)
  const lineups = useQuery({ ...lineupsQuery, enabled: asked })
  const listed = lineups.data ?? []
  const id = (listed.find((one) => one.id === lastLineup.get()) ?? listed[0])?.id
  const lineup = useQuery({ queryKey: ['moved', id], queryFn: () => fetchLineup(id!), enabled: asked && id !== undefined, retry: false })
  const parts = useQuery({ ...partsQuery, enabled: asked })
  if (!asked)
    return (
      <Button onClick={() => setAsked(true)} className="mt-1">
        Which figures does it move?
      </Button>
    )
  const part = parts.data?.find((one) => one.id === lineup.data?.partId)
  if (lineup.isError || (lineups.data && listed.length === 0))
    return <p className="text-[12px] text-muted">There is no lineup whose figures could move.</p>
  if (!lineup.data || !part)
    return (
      <p role="status" className="text-[12px] text-muted">
        Opening the last lineup …
      </p>
    )
  return <Table lineup={lineup.data} part={part} shelf={shelf} place={place} />
}

function Table({ lineup, part, shelf, place }: { lineup: Lineup; part: StoredPart; shelf: Shelf; place: TrialPlaceChoice }) {
  const candidates = useMemo(
    () => lineup.candidates.filter(({ printer, spool }) => printer === place.printer || spool === place.spool),
    [lineup, place.printer, place.spool],
  )
  const requests = useMemo(
    () =>
      candidates.flatMap((candidate) =>
        [{ ...shelf, evidence: [] }, shelf].flatMap(
          (own) => requestFor(candidate, { ...lineup, purpose: lineup.purpose ?? noPurpose }, part, own) ?? [],
        ),
      ),
    [candidates, lineup, part, shelf],
  )
  const tried = useTried(requests)
  if (candidates.length === 0)
    return (
      <p className="text-[12px] text-muted">
        No column of{' '}
        <Link to={`/bench/${lineup.id}/ledger`} className="underline">
          {lineup.name}
        </Link>{' '}
        is printed with this spool or on this printer.
      </p>
    )
  const rows = candidates.flatMap((candidate, i) => {
    const [was, is] = [tried[2 * i]?.prediction, tried[2 * i + 1]?.prediction]
    if (!was || !is) return []
    return figures.flatMap((figure) => {
      const [a, b] = [figure.value(was, lineup.purpose), figure.value(is, lineup.purpose)]
      if (!Number.isFinite(a) || !Number.isFinite(b) || Math.abs(b - a) <= WORTH * Math.max(Math.abs(a), Math.abs(b), 1e-9)) return []
      return [
        { key: `${candidate.id} ${figure.id}`, column: candidate.name, label: figure.label, was: figure.shown(a), is: figure.shown(b) },
      ]
    })
  })
  const pending = tried.filter((one) => one !== undefined).length < requests.length
  return (
    <section aria-label="Figures that move" className="text-[12px]">
      <p className="mb-1 text-muted">
        <Link to={`/bench/${lineup.id}/ledger`} className="text-ink underline decoration-line hover:decoration-strong">
          {lineup.name}
        </Link>
        , without and with what was read
      </p>
      {pending && (
        <p role="status" className="text-muted">
          Predicting {requests.length} times …
        </p>
      )}
      {!pending && rows.length === 0 && <p className="text-muted">None of its figures moves.</p>}
      <table className="w-full">
        <tbody>
          {rows.map(({ key, column, label, was, is }) => (
            <tr key={key} className="border-b border-line">
              <td className="py-0.5 pr-2 text-muted">{column}</td>
              <th className="text-left font-normal">{label}</th>
              <td className="figure text-right text-muted">{was}</td>
              <td className="figure pl-3 text-right text-lantern-ink">{is}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
