import {
  type FrozenPrint,
  type Print,
  type PrintFilter,
  type PrintLines,
  printLinesSchema,
  printSchema,
  type Trail,
  trailSchema,
} from '@sable/contract/prints'
import type { PrintOutcome } from '@sable/core/log/outcome'
import { queryOptions } from '@tanstack/react-query'
import { z } from 'zod'
import { asJsonBody, fetchJson, send } from './client'

const address = (id: string): string => `/api/prints/${encodeURIComponent(id)}`

export const printsQuery = (filter: Partial<PrintFilter>) =>
  queryOptions({
    queryKey: ['prints', filter],
    queryFn: (): Promise<PrintLines> => fetchJson(printLinesSchema, `/api/prints?${asSearch(filter)}`),
  })

export const printQuery = (id: string) =>
  queryOptions({ queryKey: ['print', id], queryFn: (): Promise<Print> => fetchJson(printSchema, address(id)) })

/** All prints of a part, each beside the one before. */
export const trailQuery = (name: string) =>
  queryOptions({
    queryKey: ['prints', 'trail', name],
    queryFn: (): Promise<Trail> => fetchJson(trailSchema, `/api/prints/trail?${new URLSearchParams({ name })}`),
  })

const asSearch = (filter: Partial<PrintFilter>): string =>
  String(
    new URLSearchParams(
      Object.entries(filter).flatMap(([name, value]) => (value === undefined || value === '' ? [] : [[name, String(value)]])),
    ),
  )

export const planPrint = (frozen: FrozenPrint): Promise<Print> => fetchJson(printSchema, '/api/prints', asJsonBody('POST', frozen))

/** @param at ISO time; now where it is left out */
export const startPrint = (id: string, at?: string): Promise<Print> =>
  fetchJson(printSchema, `${address(id)}/start`, asJsonBody('POST', { at }))

export const endPrint = (id: string, outcome: PrintOutcome, endedAt?: string): Promise<Print> =>
  fetchJson(printSchema, `${address(id)}/outcome`, asJsonBody('PUT', { outcome, endedAt }))

/** Leaves a print out of what is learned, or takes it in again. */
export const leavePrintOut = (id: string, leftOut: boolean): Promise<Print> =>
  fetchJson(printSchema, `${address(id)}/left-out`, asJsonBody('PUT', { leftOut }))

export const removePrint = async (id: string): Promise<void> => {
  await send(address(id), { method: 'DELETE' })
}

export const printPhotoAddress = (id: string): string => `/api/prints/photos/${encodeURIComponent(id)}`

export const addPrintPhoto = (print: string, file: File, withOriginal: boolean): Promise<unknown> =>
  fetchJson(z.unknown(), `${address(print)}/photos${withOriginal ? '?original=kept' : ''}`, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream' },
    patienceMs: Number.POSITIVE_INFINITY,
  })

export const removePrintPhoto = (id: string): Promise<unknown> => fetchJson(z.unknown(), printPhotoAddress(id), { method: 'DELETE' })
