import { type Search, type SearchEvent, type SearchSpec, searchEventSchema, searchListSchema, searchSchema } from '@sable/contract/search'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson, send } from './client'

export const searchesQuery = (lineupId: string) =>
  queryOptions({ queryKey: ['searches', lineupId], queryFn: () => fetchJson(searchListSchema, `/api/searches?lineup=${lineupId}`) })

export const beginSearch = (spec: SearchSpec): Promise<Search> => fetchJson(searchSchema, '/api/searches', asJsonBody('POST', spec))

export const actOnSearch = (id: string, action: 'pause' | 'resume' | 'cancel'): Promise<Search> =>
  fetchJson(searchSchema, `/api/searches/${id}/action`, asJsonBody('POST', { action }))

export const removeSearch = async (id: string): Promise<void> => {
  await send(`/api/searches/${id}`, { method: 'DELETE' })
}

/** Hears how a search goes on. The browser connects again by itself when the server was away; it is then told everything anew. */
export function hearSearch(id: string, onEvent: (event: SearchEvent) => void, onAway: () => void): () => void {
  const source = new EventSource(`/api/searches/${id}/events`)
  source.onmessage = ({ data }) => onEvent(searchEventSchema.parse(JSON.parse(data as string)))
  source.onerror = onAway
  return () => source.close()
}
