import { type FoundVariant, type Search, type SearchSpec, searchEventSchema, searchListSchema, searchSchema } from '@sable/contract/search'
import { queryOptions } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { asJsonBody, fetchJson, send } from '../../../api/client'

export const searchesQuery = (lineupId: string) =>
  queryOptions({ queryKey: ['searches', lineupId], queryFn: () => fetchJson(searchListSchema, `/api/searches?lineup=${lineupId}`) })

export const beginSearch = (spec: SearchSpec): Promise<Search> => fetchJson(searchSchema, '/api/searches', asJsonBody('POST', spec))

export const actOnSearch = (id: string, action: 'pause' | 'resume' | 'cancel'): Promise<Search> =>
  fetchJson(searchSchema, `/api/searches/${id}/action`, asJsonBody('POST', { action }))

export const removeSearch = async (id: string): Promise<void> => {
  await send(`/api/searches/${id}`, { method: 'DELETE' })
}

export interface Watched {
  readonly search: Search | undefined
  readonly variants: readonly FoundVariant[]
  readonly secondsLeft: number | undefined
  readonly away: boolean
}

const NOTHING: Watched = { search: undefined, variants: [], secondsLeft: undefined, away: false }

/** A search as it goes on. The browser connects again by itself when the server was away; it is then told everything anew. */
export function useSearch(id: string | undefined): Watched {
  const [watched, setWatched] = useState<Watched>(NOTHING)
  useEffect(() => {
    setWatched(NOTHING)
    if (!id) return
    const found = new Map<number, FoundVariant>()
    const source = new EventSource(`/api/searches/${id}/events`)
    source.onmessage = ({ data }) => {
      const { search, fresh, secondsLeft } = searchEventSchema.parse(JSON.parse(data as string))
      for (const variant of fresh) found.set(variant.position, variant)
      setWatched((before) => ({
        search,
        variants: fresh.length > 0 ? [...found.values()].sort((a, b) => a.position - b.position) : before.variants,
        secondsLeft,
        away: false,
      }))
    }
    source.onerror = () => setWatched((before) => ({ ...before, away: true }))
    return () => source.close()
  }, [id])
  return watched
}

/** Whether a search is being worked on, or will be without anybody's doing. */
export const isRunning = ({ state }: Search): boolean => state === 'running' || state === 'waiting'
