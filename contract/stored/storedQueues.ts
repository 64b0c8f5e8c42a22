import { queueSchema } from '../queues'
import { storedAs } from './storedAs'

export const storedQueue = storedAs('queue', queueSchema)
