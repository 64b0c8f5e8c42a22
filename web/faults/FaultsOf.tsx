import type { StoredCase } from '@sable/contract/cases'
import { causes, faults } from '@sable/core/faults/faults'
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { casesQuery } from '../api/cases'
import { dayOf } from '../ui/dates'

/** Faults that a printer or a reel had: its own record, the newest first. */
export function FaultsOf({ name, isIts }: { name: string; isIts: (candidate: StoredCase['candidate']) => boolean }) {
  const { data } = useQuery(casesQuery)
  const own = (data ?? []).filter(({ candidate }) => isIts(candidate)).sort((a, b) => b.changedAt.localeCompare(a.changedAt))
  if (own.length === 0) return null
  return (
    <section aria-label={`Faults of ${name}`} className="mt-4 text-[12.5px]">
      <h2 className="mb-1 font-semibold text-lantern-ink">Faults it had</h2>
      <ul>
        {own.map(({ id, fault, partName, changedAt, closed, found }) => (
          <li key={id} className="flex items-baseline gap-3 border-t border-line/60 py-1">
            <span className="figure w-24 shrink-0 text-[12px] text-muted">{dayOf(changedAt)}</span>
            <Link to={`/faults/${id}`} className="shrink-0 underline decoration-line underline-offset-2">
              {faults[fault].name}
            </Link>
            <span className="shrink-0 text-muted">{partName}</span>
            <span className="min-w-0 flex-1 truncate text-muted" title={closed}>
              {closed === undefined ? 'still open' : found === undefined ? closed : (causes.get(found)?.name ?? closed)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
