import { type Case, casesSchema, type StoredCase, storedCaseSchema } from '@sable/contract/cases'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

const address = (id: string): string => `/api/cases/${encodeURIComponent(id)}`

export const casesQuery = queryOptions({ queryKey: ['cases'], queryFn: () => fetchJson(casesSchema, '/api/cases') })

export const openCase = (one: Case): Promise<StoredCase> => fetchJson(storedCaseSchema, '/api/cases', asJsonBody('POST', one))

export const writeCase = ({ id, revision, changedAt: _, ...one }: StoredCase): Promise<StoredCase[]> =>
  fetchJson(casesSchema, address(id), asJsonBody('PUT', { revision, case: one }))

export const removeCase = (id: string): Promise<StoredCase[]> => fetchJson(casesSchema, address(id), { method: 'DELETE' })
