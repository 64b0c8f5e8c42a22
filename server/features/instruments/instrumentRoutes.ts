import { axisSchema, type InstrumentName } from '@sable/contract/instruments'
import type { Address } from '@sable/core/shelf/address'
import { Router } from 'express'
import { ProblemError, parseRequest } from '../../http/problems'
import { tcpTransport, tcpWith } from '../machines/transport'
import { lookAtTable, readCaliper, readScale } from './instruments'

/** What is seen of a table comes as one line, characters. */
const LONGEST_LOOK = 2 ** 22

/** Where instruments listen. */
export type Instruments = Readonly<Partial<Record<InstrumentName, Address | undefined>>>

/** Scale, caliper and an eye on a simulated machine's table: each tells what it shows when it is asked. */
export function instrumentRoutes(instruments: Instruments): Router {
  const routes = Router()
  const addressOf = (name: InstrumentName): Address => {
    const address = instruments[name]
    if (!address) throw new ProblemError(404, `no-${name}`, `No ${name} is connected.`, name, 'Type what it shows.')
    return address
  }
  routes.get('/', (_request, response) => {
    const isThere = (name: InstrumentName): boolean => instruments[name] !== undefined
    response.json({ scale: isThere('scale'), caliper: isThere('caliper'), table: isThere('table') })
  })
  routes.get('/scale', async (_request, response) => {
    response.json({ grams: await readScale(addressOf('scale'), tcpTransport) })
  })
  routes.get('/caliper/:axis', async (request, response) => {
    const axis = parseRequest(axisSchema, request.params.axis)
    response.json({ mm: await readCaliper(addressOf('caliper'), tcpTransport, axis) })
  })
  routes.get('/table', async (_request, response) => {
    response.json(await lookAtTable(addressOf('table'), tcpWith(LONGEST_LOOK)))
  })
  return routes
}
