import type { Plate, PlateItem, StoredPlate } from '@sable/contract/plate'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { platesQuery, writePlate } from '../api/plates'
import type { Refusal } from '../ui/Notice'

const MOST = 50

interface History {
  readonly now: Plate
  readonly past: readonly Plate[]
  readonly future: readonly Plate[]
}

const contentOf = ({ name, order, items }: StoredPlate): Plate => ({ name, order, items })

/** A plate while it is worked on: every change is seen and stored at once, and can be taken back and made again. */
export function usePlateEdits(stored: StoredPlate, onRefusal: (refusal: Refusal) => void) {
  const client = useQueryClient()
  const [history, setHistory] = useState<History>({ now: contentOf(stored), past: [], future: [] })
  const revision = useRef(stored.revision)
  const saving = useRef<Promise<void>>(Promise.resolve())
  const [waiting, setWaiting] = useState(0)
  const save = (next: Plate): void => {
    setWaiting((n) => n + 1)
    saving.current = saving.current
      .then(async () => {
        const all = await writePlate(stored.id, revision.current, next)
        revision.current = all.find(({ id }) => id === stored.id)?.revision ?? revision.current
        client.setQueryData(platesQuery.queryKey, all)
      })
      .catch(async (error: unknown) => {
        onRefusal(asRefusal(error))
        // What stands there now is taken over, or the next change would be refused alike.
        const there = (await client.fetchQuery({ ...platesQuery, staleTime: 0 })).find(({ id }) => id === stored.id)
        if (!there) return
        revision.current = there.revision
        setHistory({ now: contentOf(there), past: [], future: [] })
      })
      .finally(() => setWaiting((n) => n - 1))
  }
  const go = (next: History): void => {
    setHistory(next)
    save(next.now)
  }
  const { now, past, future } = history
  const stands = useRef(history)
  useEffect(() => {
    stands.current = history
  })
  /** What comes late is one step after what stands by then. */
  const change = (next: Plate): void => go({ now: next, past: [...stands.current.past, stands.current.now].slice(-MOST), future: [] })
  const undo = (): void => {
    const last = past.at(-1)
    if (last) go({ now: last, past: past.slice(0, -1), future: [now, ...future] })
  }
  const redo = (): void => {
    const [next, ...rest] = future
    if (next) go({ now: next, past: [...past, now], future: rest })
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).closest('input, textarea')) return
      const key = event.key.toLowerCase()
      if (key === 'z' && !event.shiftKey) undo()
      else if (key === 'y' || (key === 'z' && event.shiftKey)) redo()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return {
    plate: now,
    isSaved: waiting === 0,
    change,
    setItem: (id: string, part: Partial<PlateItem>): void =>
      change({ ...now, items: now.items.map((item) => (item.id === id ? { ...item, ...part } : item)) }),
    undo: past.length > 0 ? undo : undefined,
    redo: future.length > 0 ? redo : undefined,
  }
}
export type PlateEdits = ReturnType<typeof usePlateEdits>
