import { type Lineup, type LineupContent, type LineupWrite, lineupListSchema, lineupSchema } from '@sable/contract/lineup'
import { partListSchema, partSchema, type StoredPart } from '@sable/contract/part'
import { type SetAside, setAsideListSchema } from '@sable/contract/setAside'
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

/** Takes a part away, or brings it back; gives the parts that are then here. */
export const setPartRemoved = (id: string, removed: boolean): Promise<StoredPart[]> =>
  fetchJson(partListSchema, `/api/parts/${encodeURIComponent(id)}/removed`, asJsonBody('PUT', { removed }))

/** What is stored and cannot be read. */
export const setAsideQuery = queryOptions({ queryKey: ['set-aside'], queryFn: () => fetchJson(setAsideListSchema, '/api/set-aside') })
export const removeSetAside = ({ kind, id }: SetAside): Promise<SetAside[]> =>
  fetchJson(setAsideListSchema, `/api/set-aside/${kind}/${encodeURIComponent(id)}`, { method: 'DELETE' })

/** Puts a backup in the place of what the desk holds. @throws RequestError `desk-not-empty` unless `over` says that it may */
export const restoreBackup = async (file: File, over: boolean): Promise<void> => {
  await send(`/api/backup/restored${over ? '?over=1' : ''}`, {
    method: 'POST',
    body: file,
    patienceMs: Number.POSITIVE_INFINITY,
    headers: { 'Content-Type': 'application/zip' },
  })
}
