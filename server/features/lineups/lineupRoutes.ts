import { lineupContentSchema, lineupWriteSchema } from '@sable/contract/lineup'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { LineupStore } from './lineupStore'

const json = jsonBody(2 * 2 ** 20)

/** Lineups: listed, made, read, written, removed. */
export function lineupRoutes(lineups: LineupStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await lineups.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await lineups.create(parseRequest(lineupContentSchema, request.body)))
  })
  routes.get('/:id', async (request, response) => {
    response.json(await lineups.get(request.params.id))
  })
  routes.put('/:id', json, async (request, response) => {
    response.json(await lineups.write(request.params.id as string, parseRequest(lineupWriteSchema, request.body)))
  })
  routes.delete('/:id', async (request, response) => {
    await lineups.remove(request.params.id)
    response.status(204).end()
  })
  return routes
}
