import { experimentsSchema, ruledOutSchema, type StoredExperiment, storedExperimentSchema } from '@sable/contract/experiments'
import type { Experiment } from '@sable/core/log/experiment'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

const address = (id: string): string => `/api/experiments/${encodeURIComponent(id)}`

export const experimentsQuery = queryOptions({
  queryKey: ['experiments'],
  queryFn: () => fetchJson(experimentsSchema, '/api/experiments'),
})

/** What all experiments ruled out. */
export const ruledOutQuery = queryOptions({
  queryKey: ['experiments', 'ruled out'],
  queryFn: () => fetchJson(ruledOutSchema, '/api/experiments/ruled-out'),
})

export const addExperiment = (experiment: Partial<Experiment> & Pick<Experiment, 'question'>): Promise<StoredExperiment> =>
  fetchJson(storedExperimentSchema, '/api/experiments', asJsonBody('POST', experiment))

export const writeExperiment = ({ id, revision, changedAt: _, ...experiment }: StoredExperiment): Promise<StoredExperiment[]> =>
  fetchJson(experimentsSchema, address(id), asJsonBody('PUT', { revision, experiment }))

export const removeExperiment = (id: string): Promise<StoredExperiment[]> => fetchJson(experimentsSchema, address(id), { method: 'DELETE' })
