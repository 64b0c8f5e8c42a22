import {
  type Kept,
  recordSchemas,
  type Shelf,
  type ShelfKind,
  type ShelfRecords,
  shelfFileSchema,
  shelfSchema,
} from '@sable/contract/shelf'
import type { QueryClient } from '@tanstack/react-query'
import { z } from 'zod'
import { create } from 'zustand'
import { asJsonBody, fetchJson, RequestError } from '../../api/client'
import { shelfQuery } from '../../api/queries'

export type AnyRecord = ShelfRecords[ShelfKind]
export type KeptRecord = AnyRecord & Kept
/** A record that has no key yet: the server makes one from its name. */
export type NewRecord = { [Kind in ShelfKind]: Omit<ShelfRecords[Kind], 'key'> }[ShelfKind]

/** A record was changed in another window since this page read it: both versions. */
export class ShelfConflict extends Error {
  constructor(
    readonly kind: ShelfKind,
    readonly mine: AnyRecord,
    readonly theirs: AnyRecord,
    /** Of what is there now. */
    readonly revision: number,
  ) {
    super(`${theirs.name} was changed in another window since this page read it. Open it on the shelf to choose which version to keep.`)
  }
}

/** What was done to the shelf on this page, newest last: how to take each step back. */
export const useShelfHistory = create<{ readonly past: readonly { readonly label: string; readonly back: () => Promise<Shelf> }[] }>(
  () => ({
    past: [],
  }),
)

const address = (kind: ShelfKind, key?: string): string => `/api/shelf/${kind}${key === undefined ? '' : `/${encodeURIComponent(key)}`}`
const withKey = z.object({ key: z.string(), shelf: shelfSchema })
const imported = z.object({ added: z.number(), replaced: z.number(), shelf: shelfSchema })

/** Changes of the shelf. Each is stored at once, can be taken back, and shows everywhere. @throws RequestError */
export function shelfActions(queries: QueryClient) {
  const show = (shelf: Shelf): Shelf => {
    queries.setQueryData(shelfQuery.queryKey, shelf)
    return shelf
  }
  const remember = (label: string, back: () => Promise<Shelf>): void =>
    useShelfHistory.setState(({ past }) => ({ past: [...past, { label, back }].slice(-100) }))
  const revisionOf = (kind: ShelfKind, key: string): number =>
    (queries.getQueryData(shelfQuery.queryKey)?.[kind] as readonly KeptRecord[] | undefined)?.find((record) => record.key === key)
      ?.revision ?? 1
  /** @throws ShelfConflict when another window was first */
  const put = async (kind: ShelfKind, record: AnyRecord, revision = revisionOf(kind, record.key)): Promise<Shelf> => {
    try {
      return show(await fetchJson(shelfSchema, address(kind, record.key), asJsonBody('PUT', { revision, record })))
    } catch (error) {
      const current = error instanceof RequestError && error.problem.code === 'stale-write' ? error.problem.current : undefined
      if (current === undefined) throw error
      const { revision: theirs, ...rest } = current as AnyRecord & { revision: number }
      throw new ShelfConflict(kind, record, recordSchemas[kind].parse(rest) as AnyRecord, theirs)
    }
  }
  const setArchived = async (kind: ShelfKind, key: string, archived: boolean): Promise<Shelf> =>
    show(await fetchJson(shelfSchema, `${address(kind, key)}/archived`, asJsonBody('PUT', { archived })))
  const take = async (kind: ShelfKind, key: string): Promise<Shelf> =>
    show(await fetchJson(shelfSchema, address(kind, key), { method: 'DELETE' }))
  const bringIn = async (file: unknown): Promise<z.infer<typeof imported>> => {
    const answer = await fetchJson(imported, '/api/shelf/file', asJsonBody('POST', file))
    show(answer.shelf)
    return answer
  }
  const asFile = (kind: ShelfKind, records: readonly KeptRecord[]): unknown => ({
    format: 'sable-lantern/shelf',
    version: 1,
    [kind]: records,
  })

  return {
    async write(kind: ShelfKind, before: AnyRecord, record: AnyRecord): Promise<void> {
      await put(kind, record)
      remember(`change of ${before.name}`, () => put(kind, before))
    },
    /** Settles a conflict: stores one of the two versions over what is there. */
    async settle({ kind, theirs, revision }: ShelfConflict, chosen: AnyRecord): Promise<void> {
      if (chosen === theirs) {
        await queries.invalidateQueries({ queryKey: shelfQuery.queryKey })
        await queries.refetchQueries({ queryKey: shelfQuery.queryKey })
        return
      }
      await put(kind, chosen, revision)
      remember(`change of ${theirs.name}`, () => put(kind, theirs))
    },
    /** @returns the key of the new record */
    async add(kind: ShelfKind, record: NewRecord): Promise<string> {
      const { key, shelf } = await fetchJson(withKey, address(kind), asJsonBody('POST', { ...record, key: 'new' }))
      show(shelf)
      remember(`${record.name}`, () => take(kind, key))
      return key
    },
    async archive(kind: ShelfKind, record: KeptRecord, archived: boolean): Promise<void> {
      await setArchived(kind, record.key, archived)
      remember(`${archived ? 'archiving' : 'restoring'} ${record.name}`, () => setArchived(kind, record.key, !archived))
    },
    async remove(kind: ShelfKind, record: KeptRecord): Promise<void> {
      await take(kind, record.key)
      remember(`removal of ${record.name}`, async () => (await bringIn(asFile(kind, [record]))).shelf)
    },
    async reset(kind: ShelfKind, record: KeptRecord): Promise<void> {
      show(await fetchJson(shelfSchema, `${address(kind, record.key)}/starter`, { method: 'POST' }))
      remember(`reset of ${record.name}`, () => put(kind, record))
    },
    async bringStarters(): Promise<void> {
      show(await fetchJson(shelfSchema, '/api/shelf/starters', { method: 'POST' }))
    },
    /** @throws RequestError and ZodError */
    async importFile(text: string, before: Shelf): Promise<{ added: number; replaced: number }> {
      const { added, replaced } = await bringIn(shelfFileSchema.parse(JSON.parse(text)))
      if (replaced > 0) remember('import', async () => (await bringIn({ format: 'sable-lantern/shelf', version: 1, ...before })).shelf)
      return { added, replaced }
    },
    async undo(): Promise<void> {
      const last = useShelfHistory.getState().past.at(-1)
      if (!last) return
      show(await last.back())
      useShelfHistory.setState(({ past }) => ({ past: past.filter((step) => step !== last) }))
    },
  }
}
export type ShelfActions = ReturnType<typeof shelfActions>
