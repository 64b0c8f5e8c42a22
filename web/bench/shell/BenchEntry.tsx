import { useQuery } from '@tanstack/react-query'
import { Navigate } from 'react-router'
import { lineupsQuery } from '../../api/lineups'
import { Loading } from '../../ui/Loading'
import { lastLineup } from './lastLineup'

/** Opens the lineup that was open last, else the newest one, else begins one. */
export function BenchEntry() {
  const lineups = useQuery(lineupsQuery)
  if (!lineups.data) return <Loading what="the bench" failed={lineups.failureReason} />
  const known = lineups.data.find(({ id }) => id === lastLineup.get()) ?? lineups.data[0]
  return <Navigate to={known ? `/bench/${known.id}/ledger` : '/bench/new'} replace />
}
