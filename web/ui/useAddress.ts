import { useCallback } from 'react'
import { useSearchParams } from 'react-router'

export interface Address {
  readonly get: (name: string) => string | undefined
  /** Writes a part of the address in place; nothing or an empty text takes it out. */
  readonly set: (name: string, value: string | undefined) => void
}

/** What a view keeps in its address, so that it can be linked and reloaded. */
export function useAddress(): Address {
  const [search, setSearch] = useSearchParams()
  const set = useCallback(
    (name: string, value: string | undefined): void =>
      setSearch(
        (before) => {
          const next = new URLSearchParams(before)
          if (value === undefined || value === '') next.delete(name)
          else next.set(name, value)
          return next
        },
        { replace: true },
      ),
    [setSearch],
  )
  const get = useCallback((name: string) => search.get(name) ?? undefined, [search])
  return { get, set }
}
