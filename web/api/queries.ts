import { type Lineup, type LineupContent, type LineupWrite, lineupListSchema, lineupSchema } from '@sable/contract/lineup'
import { partListSchema, partSchema, type StoredPart } from '@sable/contract/part'
import { shelfSchema } from '@sable/contract/shelf'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson, send } from './client'

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: () => fetchJson(shelfSchema, '/api/shelf'),
  staleTime: Number.POSITIVE_INFINITY,
})
export const partsQuery = queryOptions({ queryKey: ['parts'], queryFn: () => fetchJson(partListSchema, '/api/parts') })
export const lineupsQuery = queryOptions({ queryKey: ['lineups'], queryFn: () => fetchJson(lineupListSchema, '/api/lineups') })

export const fetchLineup = (id: string): Promise<Lineup> => fetchJson(lineupSchema, `/api/lineups/${encodeURIComponent(id)}`)

export const createLineup = (content: LineupContent): Promise<Lineup> =>
  fetchJson(lineupSchema, '/api/lineups', asJsonBody('POST', content))

export const writeLineup = (id: string, write: LineupWrite): Promise<Lineup> =>
  fetchJson(lineupSchema, `/api/lineups/${encodeURIComponent(id)}`, asJsonBody('PUT', write))

export const removeLineup = async (id: string): Promise<void> => {
  await send(`/api/lineups/${encodeURIComponent(id)}`, { method: 'DELETE' })
}

/** Uploads a model file; the same file twice gives the part that is there. */
export const uploadPart = (file: File, signal: AbortSignal): Promise<StoredPart> =>
  fetchJson(partSchema, `/api/parts?fileName=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    body: file,
    signal,
    // Others may be read before it.
    patienceMs: Number.POSITIVE_INFINITY,
    headers: { 'Content-Type': 'application/octet-stream' },
  })
