import { experimentsSchema, ruledOutSchema, type StoredExperiment, storedExperimentSchema } from '@sable/contract/experiments'
import type { Experiment } from '@sable/core/log/experiment'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'
import { keptWriter } from './kept/keptWriter'

const address = (id: string): string => `/api/experiments/${encodeURIComponent(id)}`

const allExperiments = () => fetchJson(experimentsSchema, '/api/experiments')
export const experimentsQuery = queryOptions({ queryKey: ['experiments'], queryFn: allExperiments })

/** What all experiments ruled out. */
export const ruledOutQuery = queryOptions({
  queryKey: ['experiments', 'ruled out'],
  queryFn: () => fetchJson(ruledOutSchema, '/api/experiments/ruled-out'),
})

export const addExperiment = (experiment: Partial<Experiment> & Pick<Experiment, 'question'>): Promise<StoredExperiment> =>
  fetchJson(storedExperimentSchema, '/api/experiments', asJsonBody('POST', experiment))

const writeExperiment = ({ id, revision, changedAt: _, ...experiment }: StoredExperiment): Promise<StoredExperiment[]> =>
  fetchJson(experimentsSchema, address(id), asJsonBody('PUT', { revision, experiment }))

export const removeExperiment = (id: string): Promise<StoredExperiment[]> => fetchJson(experimentsSchema, address(id), { method: 'DELETE' })

/** Changes one from what it said to what it says now; see `keptWriter`. */
export const changeExperiment = keptWriter<StoredExperiment>({
  queryKey: experimentsQuery.queryKey,
  list: allExperiments,
  write: writeExperiment,
})
