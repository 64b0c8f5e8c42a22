import {
  type Reading,
  type ReadingWrite,
  readingSchema,
  type Trial,
  type TrialPhoto,
  type Trials,
  type TrialWrite,
  trialPhotoSchema,
  trialSchema,
  trialsSchema,
} from '@sable/contract/trials'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

export const trialsQuery = queryOptions({
  queryKey: ['trials'],
  queryFn: () => fetchJson(trialsSchema, '/api/trials'),
  staleTime: Number.POSITIVE_INFINITY,
})

export const addTrial = (trial: TrialWrite): Promise<Trial> => fetchJson(trialSchema, '/api/trials', asJsonBody('POST', trial))

export const removeTrial = (id: string): Promise<Trials> =>
  fetchJson(trialsSchema, `/api/trials/${encodeURIComponent(id)}`, { method: 'DELETE' })

export const addReading = (reading: ReadingWrite): Promise<Reading> =>
  fetchJson(readingSchema, '/api/trials/readings', asJsonBody('POST', reading))

/** Leaves a reading out of what is thought, or takes it in again. */
export const setLeftOut = (id: string, leftOut: boolean): Promise<Trials> =>
  fetchJson(trialsSchema, `/api/trials/readings/${encodeURIComponent(id)}/left-out`, asJsonBody('PUT', { leftOut }))

export const photoAddress = (id: string): string => `/api/trials/photos/${encodeURIComponent(id)}`

export const addPhoto = (trial: string, file: File, withOriginal: boolean): Promise<TrialPhoto> =>
  fetchJson(trialPhotoSchema, `/api/trials/${encodeURIComponent(trial)}/photos${withOriginal ? '?original=kept' : ''}`, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream' },
    patienceMs: Number.POSITIVE_INFINITY,
  })

export const removePhoto = (id: string): Promise<Trials> => fetchJson(trialsSchema, photoAddress(id), { method: 'DELETE' })
