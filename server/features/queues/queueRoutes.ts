import { queueSchema, queueWriteSchema } from '@sable/contract/queues'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { QueueStore } from './queueStore'

const json = jsonBody(2 ** 23)

/** Queues. Every change answers with all of them, which are few. */
export function queueRoutes(queues: QueueStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await queues.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await queues.add(parseRequest(queueSchema, request.body)))
  })
  routes.put('/:id', json, async (request, response) => {
    const { queue, revision } = parseRequest(queueWriteSchema, request.body)
    response.json(await queues.write(request.params.id as string, queue, revision))
  })
  routes.delete('/:id', async (request, response) => {
    response.json(await queues.remove(request.params.id))
  })
  return routes
}
