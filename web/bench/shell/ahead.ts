import type { Lineup } from '@sable/contract/lineup'
import type { QueryClient } from '@tanstack/react-query'
import { matchPath } from 'react-router'
import { fetchLineup } from '../../api/lineups'
import { partsQuery } from '../../api/parts'
import { shelfQuery } from '../../api/shelf'
import { lastLineup } from './lastLineup'

let ahead: { readonly id: string; readonly lineup: Promise<Lineup> } | undefined

/**
 * Asks for what the bench needs as soon as its address is opened: answers come and workers start while its screen is still loaded.
 * Elsewhere it asks for nothing.
 */
export function askAhead(queries: QueryClient, path: string): void {
  if (path !== '/' && !/^\/bench\b/.test(path)) return
  void queries.prefetchQuery(shelfQuery)
  void queries.prefetchQuery(partsQuery)
  void import('../../predictions/predictionStore').then(({ predictionPool }) => predictionPool())
  const id = matchPath('/bench/:lineupId/*', path)?.params.lineupId ?? lastLineup.get()
  if (id === null || id === 'new') return
  ahead = { id, lineup: fetchLineup(id) }
  // Whether it came is told by who takes it.
  ahead.lineup.catch(() => {})
}

/** The lineup that was asked for ahead: once, since it is of that moment. */
export function takeAhead(id: string): Promise<Lineup> | undefined {
  if (ahead?.id !== id) return undefined
  const { lineup } = ahead
  ahead = undefined
  return lineup
}
