import { useQuery } from '@tanstack/react-query'
import { Navigate } from 'react-router'
import { lineupsQuery } from '../../api/lineups'
import { partsQuery } from '../../api/parts'
import { Loading } from '../../ui/Loading'
import { lastLineup } from './lastLineup'
import { NewLineup } from './NewLineup'

/** Opens the lineup that was open last, else the newest one, else offers to begin one. */
export function BenchEntry() {
  const lineups = useQuery(lineupsQuery)
  const parts = useQuery(partsQuery)
  if (!lineups.data || !parts.data) return <Loading what="the bench" failed={lineups.failureReason ?? parts.failureReason} />
  const known = lineups.data.find(({ id }) => id === lastLineup.get()) ?? lineups.data[0]
  return known ? <Navigate to={`/bench/${known.id}/ledger`} replace /> : <NewLineup parts={parts.data} />
}
