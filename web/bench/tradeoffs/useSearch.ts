import type { FoundVariant, Search } from '@sable/contract/search'
import { useEffect, useState } from 'react'
import { hearSearch } from '../../api/searches'

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
    return hearSearch(
      id,
      ({ search, fresh, secondsLeft }) => {
        for (const variant of fresh) found.set(variant.position, variant)
        setWatched((before) => ({
          search,
          variants: fresh.length > 0 ? [...found.values()].sort((a, b) => a.position - b.position) : before.variants,
          secondsLeft,
          away: false,
        }))
      },
      () => setWatched((before) => ({ ...before, away: true })),
    )
  }, [id])
  return watched
}

/** Whether a search is being worked on, or will be without anybody's doing. */
export const isRunning = ({ state }: Search): boolean => state === 'running' || state === 'waiting'
