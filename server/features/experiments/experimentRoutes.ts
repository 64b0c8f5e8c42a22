import { experimentWriteSchema } from '@sable/contract/experiments'
import { experimentSchema } from '@sable/core/log/experiment'
import type { Router } from 'express'
import { keptRoutes } from '../kept/keptRoutes'
import type { ExperimentStore } from './experimentStore'

const MOST = 2 ** 18

/** Questions to prints, and what all of them and all cases ruled out. */
export function experimentRoutes(experiments: ExperimentStore): Router {
  const routes = keptRoutes(experiments, { one: experimentSchema, write: experimentWriteSchema }, ({ experiment }) => experiment, MOST)
  routes.get('/ruled-out', async (_request, response) => {
    response.json(await experiments.ruledOut())
  })
  return routes
}
