import { type DrawnTower, type TowerTruth, towerAnswerSchema } from '@sable/contract/trainer'
import { cleanWindow } from '@sable/core/learning/cleanWindow'
import { drawnTower } from '@sable/standins/tower'
import { Router } from 'express'
import { z } from 'zod'
import { jsonBody, parseRequest } from '../../http/problems'

const json = jsonBody(1024)
const seedSchema = z.coerce.number().int().min(0).max(1e9)

/** Towers to learn reading on. What is sent of one is what is to be seen; its truth is told for an answer. Nothing is kept. */
export function trainerRoutes(): Router {
  const routes = Router()
  routes.get('/:seed', (request, response) => {
    const seed = parseRequest(seedSchema, request.params.seed)
    const { truth: _, ...seen } = drawnTower(seed)
    response.json({ seed, ...seen } satisfies DrawnTower)
  })
  routes.post('/:seed', json, (request, response) => {
    parseRequest(towerAnswerSchema, request.body)
    const tower = drawnTower(parseRequest(seedSchema, request.params.seed))
    const rule = ruleOf(tower)
    response.json({ truth: tower.truth, ...(rule === undefined ? {} : { rule }) } satisfies TowerTruth)
  })
  return routes
}

/** More than this of a kind in a band is no accident. */
const ACCIDENT = 1

/** What the rules of the trials make of what is to be seen: the middle of the clean window, or the first band that fails less a step. */
function ruleOf({ kind, bands }: ReturnType<typeof drawnTower>): number | undefined {
  if (kind === 'flow') {
    const first = bands.findIndex(({ gaps }) => gaps.length > 0)
    return first === -1 ? undefined : Number(bands[first]!.label)
  }
  return cleanWindow(
    bands.map(({ label, strings, gaps }) => ({
      temperature: Number(label),
      seen: gaps.length > ACCIDENT ? 'gaps' : strings.length > ACCIDENT ? 'strings' : 'clean',
    })),
  )?.best
}
