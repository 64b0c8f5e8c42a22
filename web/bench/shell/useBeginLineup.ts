import type { LineupContent } from '@sable/contract/lineup'
import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { createLineup, lineupsQuery } from '../../api/lineups'
import { useBench } from '../../desk/bench'

/** Stores a lineup and opens it. */
export function useBeginLineup(): (fresh: LineupContent) => Promise<void> {
  const { onRefusal } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  return async (fresh) => {
    try {
      const lineup = await createLineup(fresh)
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${lineup.id}/ledger`)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
}
