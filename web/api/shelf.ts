import { type RecordRevisions, recordRevisionsSchema, type Shelf, type ShelfKind, shelfSchema, usesSchema } from '@sable/contract/shelf'
import { queryOptions } from '@tanstack/react-query'
import { z } from 'zod'
import { asJsonBody, fetchJson } from './client'

const address = (kind: ShelfKind, key?: string): string => `/api/shelf/${kind}${key === undefined ? '' : `/${encodeURIComponent(key)}`}`

export const shelfQuery = queryOptions({
  queryKey: ['shelf'],
  queryFn: () => fetchJson(shelfSchema, '/api/shelf'),
  staleTime: Number.POSITIVE_INFINITY,
})

/** Where a record is in use. */
export const usesQuery = (kind: ShelfKind, key: string) =>
  queryOptions({ queryKey: ['uses', kind, key], queryFn: () => fetchJson(usesSchema, `${address(kind, key)}/uses`) })

export const fetchRevisions = (kind: ShelfKind, key: string): Promise<RecordRevisions> =>
  fetchJson(recordRevisionsSchema, `${address(kind, key)}/revisions`)

const withKey = z.object({ key: z.string(), shelf: shelfSchema })
/** @returns the key of the new record, and the shelf as it then is */
export const addRecord = (kind: ShelfKind, record: object): Promise<z.infer<typeof withKey>> =>
  fetchJson(withKey, address(kind), asJsonBody('POST', { ...record, key: 'new' }))

/** @throws RequestError `stale-write` with what the shelf holds, when the change started from an older revision */
export const writeRecord = (kind: ShelfKind, key: string, record: unknown, revision: number): Promise<Shelf> =>
  fetchJson(shelfSchema, address(kind, key), asJsonBody('PUT', { revision, record }))

export const setRecordArchived = (kind: ShelfKind, key: string, archived: boolean): Promise<Shelf> =>
  fetchJson(shelfSchema, `${address(kind, key)}/archived`, asJsonBody('PUT', { archived }))

export const removeRecord = (kind: ShelfKind, key: string): Promise<Shelf> =>
  fetchJson(shelfSchema, address(kind, key), { method: 'DELETE' })

export const resetRecord = (kind: ShelfKind, key: string): Promise<Shelf> =>
  fetchJson(shelfSchema, `${address(kind, key)}/starter`, { method: 'POST' })

export const bringStarters = (): Promise<Shelf> => fetchJson(shelfSchema, '/api/shelf/starters', { method: 'POST' })

const imported = z.object({ added: z.number(), replaced: z.number(), shelf: shelfSchema })
export type Imported = z.infer<typeof imported>
/** Puts the records of a file onto the shelf. */
export const importShelf = (file: unknown): Promise<Imported> => fetchJson(imported, '/api/shelf/file', asJsonBody('POST', file))
