import type { Lineup } from '@sable/contract/lineup'
import { useQuery } from '@tanstack/react-query'
import { fetchLineup, lineupsQuery } from '../api/lineups'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Dialog'
import { Loading } from '../ui/Loading'

/** Columns of all lineups, to be put on a plate one by one. */
export function AddColumns({
  why,
  onAdd,
  onClose,
}: {
  /** Why a column cannot share the plate; nothing where it can. */
  why: (lineup: Lineup, candidate: string) => string | undefined
  onAdd: (lineup: Lineup, candidate: string) => void
  onClose: () => void
}) {
  const all = useQuery(lineupsQuery)
  const ids = (all.data ?? []).map(({ id }) => id)
  const lineups = useQuery({
    queryKey: ['lineups for a plate', ...ids],
    queryFn: () => Promise.all(ids.map(fetchLineup)),
    enabled: ids.length > 0,
    staleTime: 0,
  })
  return (
    <Sheet title="Columns onto the plate" onClose={onClose} width="w-[36rem]">
      {!lineups.data ? (
        ids.length === 0 && all.data ? (
          <p className="py-4 text-muted">There is no lineup yet. Begin one on the bench.</p>
        ) : (
          <Loading what="the lineups" failed={lineups.failureReason ?? all.failureReason} />
        )
      ) : (
        <ul className="space-y-3 text-[12.5px]">
          {lineups.data.map((lineup) => (
            <li key={lineup.id}>
              <p className="font-medium">{lineup.name}</p>
              <ul>
                {lineup.candidates.map(({ id, name }) => {
                  const reason = why(lineup, id)
                  return (
                    <li key={id} className="flex items-center gap-3 border-t border-line/60 py-1">
                      <span className="min-w-0 flex-1 truncate">{name}</span>
                      {reason && <span className="truncate text-[12px] text-muted">{reason}</span>}
                      <Button
                        disabled={reason !== undefined}
                        aria-label={`Add ${name} of ${lineup.name}`}
                        onClick={() => onAdd(lineup, id)}
                      >
                        Add
                      </Button>
                    </li>
                  )
                })}
              </ul>
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  )
}
