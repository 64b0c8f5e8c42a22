import { type Case, casesSchema, type StoredCase, storedCaseSchema } from '@sable/contract/cases'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'
import { keptWriter } from './kept/keptWriter'

const address = (id: string): string => `/api/cases/${encodeURIComponent(id)}`

const allCases = () => fetchJson(casesSchema, '/api/cases')
export const casesQuery = queryOptions({ queryKey: ['cases'], queryFn: allCases })

export const openCase = (one: Case): Promise<StoredCase> => fetchJson(storedCaseSchema, '/api/cases', asJsonBody('POST', one))

const writeCase = ({ id, revision, changedAt: _, ...one }: StoredCase): Promise<StoredCase[]> =>
  fetchJson(casesSchema, address(id), asJsonBody('PUT', { revision, case: one }))

export const removeCase = (id: string): Promise<StoredCase[]> => fetchJson(casesSchema, address(id), { method: 'DELETE' })

/** Changes one from what it said to what it says now; see `keptWriter`. */
export const changeCase = keptWriter<StoredCase>({ queryKey: casesQuery.queryKey, list: allCases, write: writeCase })
