import { queueSchema, queueWriteSchema } from '@sable/contract/queues'
import type { Router } from 'express'
import { keptRoutes } from '../kept/keptRoutes'
import type { QueueStore } from './queueStore'

/** Each job holds what was foretold of its ways: a queue of many is large. */
const MOST = 2 ** 23

export const queueRoutes = (queues: QueueStore): Router =>
  keptRoutes(queues, { one: queueSchema, write: queueWriteSchema }, ({ queue }) => queue, MOST)
