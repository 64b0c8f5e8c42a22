import { useCallback } from 'react'
import { useNavigate, useSearchParams } from 'react-router'

export interface Address {
  readonly get: (name: string) => string | undefined
  /** Writes parts of the address in place; nothing or an empty text takes one out. */
  readonly set: (changes: Readonly<Record<string, string | undefined>>) => void
}

/** What a view keeps in its address, so that it can be linked and reloaded. */
export function useAddress(): Address {
  const [search] = useSearchParams()
  const navigate = useNavigate()
  const set = useCallback(
    (changes: Readonly<Record<string, string | undefined>>): void => {
      // What is drawn may be behind the address: a change must not bring back what another one has just written.
      const next = new URLSearchParams(window.location.search)
      for (const [name, value] of Object.entries(changes)) {
        if (value === undefined || value === '') next.delete(name)
        else next.set(name, value)
      }
      const search = next.size > 0 ? `?${next}` : ''
      if (search !== window.location.search) void navigate({ search }, { replace: true })
    },
    [navigate],
  )
  const get = useCallback((name: string) => search.get(name) ?? undefined, [search])
  return { get, set }
}
