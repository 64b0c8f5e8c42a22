import { lineupContentSchema, lineupWriteSchema } from '@sable/contract/lineup'
import { removedSchema } from '@sable/contract/part'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { LineupStore } from './lineupStore'

const json = jsonBody(2 * 2 ** 20)

/** Lineups: listed, made, read, written, removed and brought back. */
export function lineupRoutes(lineups: LineupStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await lineups.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await lineups.create(parseRequest(lineupContentSchema, request.body)))
  })
  routes.get('/removed', async (_request, response) => {
    response.json(await lineups.removed())
  })
  routes.put('/:id/removed', jsonBody(1024), async (request, response) => {
    const { removed } = parseRequest(removedSchema, request.body)
    const id = request.params.id as string
    await (removed ? lineups.takeAway(id) : lineups.bringBack(id))
    response.json(await lineups.removed())
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
