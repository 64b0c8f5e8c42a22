import { type QueueContent, queuesSchema, type StoredQueue, storedQueueSchema } from '@sable/contract/queues'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

const address = (id: string): string => `/api/queues/${encodeURIComponent(id)}`

export const queuesQuery = queryOptions({ queryKey: ['queues'], queryFn: () => fetchJson(queuesSchema, '/api/queues') })

export const addQueue = (queue: QueueContent): Promise<StoredQueue> =>
  fetchJson(storedQueueSchema, '/api/queues', asJsonBody('POST', queue))

export const writeQueue = ({ id, revision, changedAt: _, ...queue }: StoredQueue): Promise<StoredQueue[]> =>
  fetchJson(queuesSchema, address(id), asJsonBody('PUT', { revision, queue }))

export const removeQueue = (id: string): Promise<StoredQueue[]> => fetchJson(queuesSchema, address(id), { method: 'DELETE' })
