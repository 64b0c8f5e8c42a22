import { saysTheSame } from '@sable/contract/saysTheSame'
import { SHELF_FILE_VERSION, type Shelf, type ShelfKind, type ShelfRecords, shelfFileSchema } from '@sable/contract/shelf'
import type { QueryClient } from '@tanstack/react-query'
import { create } from 'zustand'
import { mergeRecord } from '../api/kept/mergeRecord'
import {
  addRecord,
  bringStarters,
  type Imported,
  importShelf,
  removeRecord,
  resetRecord,
  setRecordArchived,
  shelfQuery,
} from '../api/shelf'
import { type AnyRecord, idOf, type KeptRecord, type ShelfConflict, withWanted, writerOf } from './shelfWriter'

/** A record that has no key yet: the server makes one from its name. */
export type NewRecord = { [Kind in ShelfKind]: Omit<ShelfRecords[Kind], 'key'> }[ShelfKind]

/** What was done to the shelf on this page, newest last: how to take each step back. */
export const useShelfHistory = create<{ readonly past: readonly { readonly label: string; readonly back: () => Promise<unknown> }[] }>(
  () => ({
    past: [],
  }),
)

/** What a record says, without what the shelf knows of it. */
const said = ({ starter: _, archived: __, revision: ___, ...record }: KeptRecord): AnyRecord => record as AnyRecord

/** Changes of the shelf. Each is stored at once, can be taken back, and shows everywhere. @throws RequestError */
export function shelfActions(queries: QueryClient) {
  const writer = writerOf(queries)
  const show = (shelf: Shelf): Shelf => {
    const shown = withWanted(shelf, writer)
    queries.setQueryData(shelfQuery.queryKey, shown)
    return shown
  }
  const remember = (label: string, back: () => Promise<unknown>): void =>
    useShelfHistory.setState(({ past }) => ({ past: [...past, { label, back }].slice(-100) }))
  const keptOf = (kind: ShelfKind, key: string): KeptRecord | undefined =>
    (queries.getQueryData(shelfQuery.queryKey)?.[kind] as readonly KeptRecord[] | undefined)?.find((record) => record.key === key)
  /** @throws ShelfConflict when another window was first */
  const put = (
    kind: ShelfKind,
    key: string,
    change: (latest: AnyRecord) => AnyRecord,
    over?: { record: AnyRecord; revision: number },
  ): Promise<void> =>
    writer.write(
      idOf(kind, key),
      () => {
        const kept = keptOf(kind, key)
        if (over) return over
        if (!kept) throw new Error(`There is no ${key} on the shelf any more.`)
        return { record: said(kept), revision: kept.revision }
      },
      change,
    )
  const setArchived = async (kind: ShelfKind, key: string, archived: boolean): Promise<Shelf> =>
    show(await setRecordArchived(kind, key, archived))
  const take = async (kind: ShelfKind, key: string): Promise<Shelf> => show(await removeRecord(kind, key))
  const bringIn = async (file: unknown): Promise<Imported> => {
    const answer = await importShelf(file)
    show(answer.shelf)
    return answer
  }
  const asFile = (kind: ShelfKind, records: readonly KeptRecord[]): unknown => ({
    format: 'sable-lantern/shelf',
    version: SHELF_FILE_VERSION,
    [kind]: records,
  })

  return {
    /** Changes a record from what it said to what it says now; what else was changed meanwhile stays changed. */
    async write(kind: ShelfKind, before: AnyRecord, record: AnyRecord): Promise<void> {
      await put(kind, record.key, (latest) => mergeRecord(before, record, latest))
      if (!saysTheSame(before, record)) remember(`change of ${before.name}`, () => put(kind, before.key, () => before))
    },
    /** Settles a conflict: stores one of the two versions over what is there. */
    async settle({ kind, theirs, revision }: ShelfConflict, chosen: AnyRecord): Promise<void> {
      if (chosen === theirs) {
        await queries.invalidateQueries({ queryKey: shelfQuery.queryKey })
        await queries.refetchQueries({ queryKey: shelfQuery.queryKey })
        return
      }
      await put(kind, chosen.key, () => chosen, { record: theirs, revision })
      remember(`change of ${theirs.name}`, () => put(kind, theirs.key, () => theirs))
    },
    /** @returns the key of the new record */
    async add(kind: ShelfKind, record: NewRecord): Promise<string> {
      const { key, shelf } = await addRecord(kind, record)
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
      remember(`removal of ${record.name}`, () => bringIn(asFile(kind, [record])))
    },
    async reset(kind: ShelfKind, record: KeptRecord): Promise<void> {
      show(await resetRecord(kind, record.key))
      remember(`reset of ${record.name}`, () => put(kind, record.key, () => said(record)))
    },
    async bringStarters(): Promise<void> {
      show(await bringStarters())
    },
    /** @throws RequestError and ZodError */
    async importFile(text: string, before: Shelf): Promise<{ added: number; replaced: number }> {
      const { added, replaced } = await bringIn(shelfFileSchema.parse(JSON.parse(text)))
      if (replaced > 0) remember('import', () => bringIn({ format: 'sable-lantern/shelf', version: SHELF_FILE_VERSION, ...before }))
      return { added, replaced }
    },
    async undo(): Promise<void> {
      const last = useShelfHistory.getState().past.at(-1)
      if (!last) return
      await last.back()
      useShelfHistory.setState(({ past }) => ({ past: past.filter((step) => step !== last) }))
    },
  }
}
export type ShelfActions = ReturnType<typeof shelfActions>
