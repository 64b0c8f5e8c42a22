import { connectSchema, printOnSchema } from '@sable/contract/machines'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { MachineDesk } from './machineDesk'

const json = jsonBody(2 ** 14)

/** Machines: connected, printing, held, ended or stopped at once; each answers how it stands then. */
export function machineRoutes(machines: MachineDesk): Router {
  const routes = Router()
  routes.get('/:printer', async (request, response) => {
    response.json(await machines.state(request.params.printer))
  })
  routes.post('/:printer/connect', json, async (request, response) => {
    response.json(await machines.connect(request.params.printer as string, parseRequest(connectSchema, request.body).confirmed))
  })
  routes.post('/:printer/print', json, async (request, response) => {
    response.json(await machines.print(request.params.printer as string, parseRequest(printOnSchema, request.body).print))
  })
  routes.post('/:printer/give-up', json, async (request, response) => {
    response.json(await machines.giveUp(request.params.printer as string, parseRequest(printOnSchema, request.body).print))
  })
  for (const act of ['pause', 'resume', 'end', 'halt', 'disconnect'] as const)
    routes.post(`/:printer/${act}`, async (request, response) => {
      response.json(await machines[act](request.params.printer as string))
    })
  return routes
}
