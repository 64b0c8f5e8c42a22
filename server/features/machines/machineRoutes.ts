import { connectSchema, printOnSchema } from '@sable/contract/machines'
import type { Address } from '@sable/core/shelf/address'
import { Router } from 'express'
import { jsonBody, ProblemError, parseRequest } from '../../http/problems'
import type { MachineDesk } from './machineDesk'
import { readScale } from './scale'
import { tcpTransport } from './transport'

const json = jsonBody(2 ** 14)

/**
 * Machines: connected, printing, held, ended or stopped at once; each answers how it stands then. A key of a printer is never "scale".
 *
 * @param scale where one listens
 */
export function machineRoutes(machines: MachineDesk, scale: Address | undefined): Router {
  const routes = Router()
  routes.get('/scale/there', (_request, response) => {
    response.json({ isThere: scale !== undefined })
  })
  routes.get('/scale', async (_request, response) => {
    if (!scale) throw new ProblemError(404, 'no-scale', 'No scale is connected.', 'scale', 'Type what it shows.')
    response.json({ grams: await readScale(scale, tcpTransport) })
  })
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
