import { partListSchema, partSchema, type StoredPart } from '@sable/contract/part'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson, send } from './client'

export const partsQuery = queryOptions({ queryKey: ['parts'], queryFn: () => fetchJson(partListSchema, '/api/parts') })

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

/** The model file of a part, as it was loaded. */
export const fetchPartFile = async (id: string): Promise<Uint8Array> => {
  const response = await send(`/api/parts/${encodeURIComponent(id)}/file`, { patienceMs: Number.POSITIVE_INFINITY })
  return new Uint8Array(await response.arrayBuffer())
}

/** Takes a part away, or brings it back; gives the parts that are then here. */
export const setPartRemoved = (id: string, removed: boolean): Promise<StoredPart[]> =>
  fetchJson(partListSchema, `/api/parts/${encodeURIComponent(id)}/removed`, asJsonBody('PUT', { removed }))
