import { jobActionSchema } from '@sable/contract/job'
import { searchSpecSchema } from '@sable/contract/search'
import { Router } from 'express'
import { z } from 'zod'
import { jsonBody, parseRequest } from '../../http/problems'
import type { JobRunner } from '../../jobs/jobRunner'
import type { SearchStore } from './searchStore'

const json = jsonBody(2 ** 20)
const listSchema = z.object({ lineup: z.uuid() })
/** A connection that says nothing is thought dead by what lies between. */
const HEARTBEAT_MS = 15_000

/** Searches: begun, watched as they run, paused, resumed, ended, removed. */
export function searchRoutes(store: SearchStore, runner: JobRunner): Router {
  const routes = Router()
  routes.get('/', async (request, response) => {
    response.json(await store.list(parseRequest(listSchema, request.query).lineup))
  })
  routes.post('/', json, async (request, response) => {
    const search = await store.create(parseRequest(searchSpecSchema, request.body))
    runner.enqueue(search.id)
    response.status(201).json(search)
  })
  routes.post('/:id/action', json, async (request, response) => {
    const { action } = parseRequest(jobActionSchema, request.body)
    const id = request.params.id as string
    await runner[action](id)
    response.json(await store.get(id))
  })
  routes.delete('/:id', async (request, response) => {
    await runner.cancel(request.params.id)
    await store.remove(request.params.id)
    response.status(204).end()
  })
  routes.get('/:id/events', async (request, response) => {
    // A search that is not there is an ordinary refusal, before the stream begins.
    await store.get(request.params.id)
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' }).flushHeaders()
    const leave = await runner.watch(request.params.id, (event) => response.write(`data: ${JSON.stringify(event)}\n\n`))
    const beat = setInterval(() => response.write(': still here\n\n'), HEARTBEAT_MS)
    response.on('close', () => {
      clearInterval(beat)
      leave()
    })
  })
  return routes
}
