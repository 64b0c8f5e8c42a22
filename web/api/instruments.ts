import { type Axis, instrumentsSchema, type OnTable, onTableSchema } from '@sable/contract/instruments'
import { queryOptions } from '@tanstack/react-query'
import { z } from 'zod'
import { fetchJson } from './client'

/** An instrument is waited for as long as a network takes. */
const PATIENCE_MS = 30_000

/** Which instruments are connected at all. */
export const instrumentsQuery = queryOptions({
  queryKey: ['instruments'],
  queryFn: () => fetchJson(instrumentsSchema, '/api/instruments'),
  staleTime: Number.POSITIVE_INFINITY,
})

export const readScale = async (): Promise<number> =>
  (await fetchJson(z.object({ grams: z.number() }), '/api/instruments/scale', { patienceMs: PATIENCE_MS })).grams

export const readCaliper = async (axis: Axis): Promise<number> =>
  (await fetchJson(z.object({ mm: z.number() }), `/api/instruments/caliper/${axis}`, { patienceMs: PATIENCE_MS })).mm

export const lookAtTable = (): Promise<OnTable> => fetchJson(onTableSchema, '/api/instruments/table', { patienceMs: PATIENCE_MS })
