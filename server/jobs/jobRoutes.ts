import { Router } from 'express'
import type { JobStore } from './jobStore'

/** Jobs of all kinds: what waits, runs and has been. What is done with one belongs to the routes of its feature. */
export function jobRoutes(jobs: JobStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await jobs.list())
  })
  return routes
}
