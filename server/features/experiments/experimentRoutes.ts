import { experimentWriteSchema } from '@sable/contract/experiments'
import { experimentSchema } from '@sable/core/log/experiment'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { ExperimentStore } from './experimentStore'

const json = jsonBody(2 ** 18)

/** Questions to prints. Every change answers with all of them, which are few. */
export function experimentRoutes(experiments: ExperimentStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await experiments.list())
  })
  routes.get('/ruled-out', async (_request, response) => {
    response.json(await experiments.ruledOut())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await experiments.add(parseRequest(experimentSchema, request.body)))
  })
  routes.put('/:id', json, async (request, response) => {
    const { experiment, revision } = parseRequest(experimentWriteSchema, request.body)
    response.json(await experiments.write(request.params.id as string, experiment, revision))
  })
  routes.delete('/:id', async (request, response) => {
    response.json(await experiments.remove(request.params.id))
  })
  return routes
}
