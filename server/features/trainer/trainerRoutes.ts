import { randomUUID } from 'node:crypto'
import { setImmediate as others } from 'node:timers/promises'
import { type DrawnTower, LARGEST_TOWER, type TowerTruth, towerAnswerSchema, towerAskSchema } from '@sable/contract/trainer'
import { cleanWindow } from '@sable/core/learning/cleanWindow'
import { drawnTower, type DrawnTower as MadeTower, type TowerBand, type TowerKind } from '@sable/standins/tower'
import { Router, text } from 'express'
import { z } from 'zod'
import { jsonBody, notFound, ProblemError, parseRequest } from '../../http/problems'

const json = jsonBody(1024)
const seedSchema = z.coerce.number().int().min(0).max(1e9)
/** Towers whose truth is remembered until they are read. */
const MOST_KEPT = 100
/** Machines that are tried until one's truth can be read off the bands. */
const TRIES = 8

/**
 * Towers to learn reading on: a trial's program runs on a simulated machine whose truth nobody knows. What is sent back is what is to be
 * seen; the truth is told for an answer. Nothing is written to any record.
 */
export function trainerRoutes(): Router {
  const routes = Router()
  const kept = new Map<string, TowerTruth>()
  routes.post('/:id/answer', json, (request, response) => {
    parseRequest(towerAnswerSchema, request.body)
    const truth = kept.get(request.params.id as string)
    if (!truth) throw notFound('tower', request.params.id as string)
    response.json(truth satisfies TowerTruth)
  })
  routes.post('/:seed', text({ type: '*/*', limit: LARGEST_TOWER }), async (request, response) => {
    const seed = parseRequest(seedSchema, request.params.seed)
    const { kind, bands } = parseRequest(towerAskSchema, request.query)
    const tower = await readableTower(kind, String(request.body).split('\n'), bands, seed)
    const id = randomUUID()
    const rule = ruleOf(kind, tower, bands)
    kept.set(id, { truth: tower.truth, ...(rule === undefined ? {} : { rule }) })
    if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value as string)
    response.status(201).json({ id, thing: copied(tower.thing) } satisfies DrawnTower)
  })
  return routes
}

/** The contract's lists can be written to. */
const copied = ({ rows, strings, gaps, ...own }: MadeTower['thing']): DrawnTower['thing'] => ({
  ...own,
  rows: rows.map(({ spans, ...row }) => ({ ...row, spans: spans.map(([from, to]): [number, number] => [from, to]) })),
  strings: [...strings],
  gaps: [...gaps],
})

/** A tower whose truth lies within its bands, as far as some machines have one; while it is made, others are served. */
async function readableTower(kind: TowerKind, program: readonly string[], bands: readonly TowerBand[], seed: number): Promise<MadeTower> {
  let tower: MadeTower | undefined
  for (let n = 0; n < TRIES; n++) {
    try {
      const making = drawnTower(kind, program, bands, seed + n * 1_000_003)
      let step = making.next()
      while (!step.done) {
        await others()
        step = making.next()
      }
      tower = step.value
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      throw new ProblemError(422, 'tower-not-made', `The program makes no tower: ${error.message}`, 'program', 'Plan the trial anew.')
    }
    if (tower.truth > bands[0]!.value && tower.truth <= bands.at(-1)!.value) break
  }
  return tower!
}

/** More than so many of a kind in a band are no accident. */
const ACCIDENT = 2

/** What the rules of the trials make of what is to be seen: the middle of the clean window, the first band that fails, the first that is clean. */
function ruleOf(kind: TowerKind, { counts }: MadeTower, bands: readonly TowerBand[]): number | undefined {
  if (kind === 'flowLadder') return bands[counts.findIndex(({ gaps }) => gaps > ACCIDENT)]?.value
  if (kind === 'retraction') return bands[counts.findIndex(({ strings }) => strings === 0)]?.value
  return cleanWindow(
    bands.map(({ value }, i) => ({
      temperature: value,
      seen: counts[i]!.gaps > ACCIDENT ? 'gaps' : counts[i]!.strings > ACCIDENT ? 'strings' : 'clean',
    })),
  )?.best
}
