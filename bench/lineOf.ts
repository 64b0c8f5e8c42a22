import type { MessagePort, Transferable, Worker } from 'node:worker_threads'
import type { Line } from '@sable/core/pipeline/crew/crew'

/** A line over what threads of Node talk through. */
export const lineOf = (end: MessagePort | Worker): Line => ({
  post: (message, transfer) => end.postMessage(message, transfer as readonly Transferable[] as Transferable[]),
  listen: (onMessage) => {
    end.on('message', onMessage)
  },
})
