import { caseSchema, caseWriteSchema } from '@sable/contract/cases'
import { Router } from 'express'
import { jsonBody, parseRequest } from '../../http/problems'
import type { CaseStore } from './caseStore'

const json = jsonBody(2 ** 18)

/** Cases of faults. Every change answers with all of them, which are few. */
export function caseRoutes(cases: CaseStore): Router {
  const routes = Router()
  routes.get('/', async (_request, response) => {
    response.json(await cases.list())
  })
  routes.post('/', json, async (request, response) => {
    response.status(201).json(await cases.add(parseRequest(caseSchema, request.body)))
  })
  routes.put('/:id', json, async (request, response) => {
    const { case: changed, revision } = parseRequest(caseWriteSchema, request.body)
    response.json(await cases.write(request.params.id as string, changed, revision))
  })
  routes.delete('/:id', async (request, response) => {
    response.json(await cases.remove(request.params.id))
  })
  return routes
}
