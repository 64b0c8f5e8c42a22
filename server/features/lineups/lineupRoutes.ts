import { lineupContentSchema, lineupWriteSchema } from '@sable/contract/lineup'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { LineupStore } from './lineupStore'

const json = jsonBody(2 * 2 ** 20)

/** Lineups: listed, made, read, written, removed; and what the profiles in them said before. */
export function routesOfLineups(lineups: LineupStore): { readonly lineupRoutes: Router; readonly profileRoutes: Router } {
  const lineupRoutes = Router()
  lineupRoutes.get('/', async (_request, response) => {
    response.json(await lineups.list())
  })
  lineupRoutes.post('/', json, async (request, response) => {
    response.status(201).json(await lineups.create(parseRequest(lineupContentSchema, request.body)))
  })
  lineupRoutes.get('/:id', async (request, response) => {
    response.json(await lineups.get(request.params.id))
  })
  lineupRoutes.put('/:id', json, async (request, response) => {
    response.json(await lineups.write(request.params.id as string, parseRequest(lineupWriteSchema, request.body)))
  })
  lineupRoutes.delete('/:id', async (request, response) => {
    await lineups.remove(request.params.id)
    response.status(204).end()
  })
  const profileRoutes = Router()
  profileRoutes.get('/:id/revisions', async (request, response) => {
    response.json(await lineups.profileRevisions(request.params.id))
  })
  return { lineupRoutes, profileRoutes }
}
