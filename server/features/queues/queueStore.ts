import type { QueueContent } from '@sable/contract/queues'
import { storedQueue } from '@sable/contract/stored/storedQueues'
import type { Models } from '../../database/models'
import { createKeptStore } from '../kept/keptStore'

/** Queues: what is to be printed, on which machines, and when somebody is there. */
export const createQueueStore = (models: Models) => createKeptStore<QueueContent>(models.queues, 'queue', storedQueue)

export type QueueStore = ReturnType<typeof createQueueStore>
