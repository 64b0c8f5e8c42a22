import { type SetAside, type StoredKind, storedKinds } from '@sable/contract/setAside'
import { type ShelfKind, shelfKinds } from '@sable/contract/shelf'
import { Router } from 'express'
import { z } from 'zod'
import { notFound, parseRequest } from '../../http/problems'
import type { CaseStore } from '../cases/caseStore'
import type { ExperimentStore } from '../experiments/experimentStore'
import type { LineupStore } from '../lineups/lineupStore'
import type { PartStore } from '../parts/partStore'
import type { PlateStore } from '../plates/plateStore'
import type { PrintStore } from '../prints/printStore'
import type { QueueStore } from '../queues/queueStore'
import type { SearchStore } from '../searches/searchStore'
import type { ShelfStore } from '../shelf/shelfStore'
import type { TrialStore } from '../trials/trialStore'

interface Stores {
  readonly parts: PartStore
  readonly shelf: ShelfStore
  readonly lineups: LineupStore
  readonly searches: SearchStore
  readonly trials: TrialStore
  readonly prints: PrintStore
  readonly experiments: ExperimentStore
  readonly cases: CaseStore
  readonly queues: QueueStore
  readonly plates: PlateStore
}

const kindSchema = z.enum(storedKinds)

/** What is stored and cannot be read: told, and removed on request. Only what cannot be read can be removed here. */
export function setAsideRoutes({ parts, shelf, lineups, searches, trials, prints, experiments, cases, queues, plates }: Stores): Router {
  const routes = Router()
  const all = async (): Promise<SetAside[]> =>
    (
      await Promise.all(
        [parts, shelf, lineups, searches, trials, prints, experiments, cases, queues, plates].map((store) => store.unreadable()),
      )
    ).flat()
  const remove = async (kind: StoredKind, id: string): Promise<void> => {
    if (kind === 'part') return parts.remove(id)
    if (kind === 'lineup') return lineups.remove(id)
    if (kind === 'search') return searches.remove(id)
    if (kind === 'trial' || kind === 'reading') return trials.forget(kind, id)
    if (kind === 'experiment' || kind === 'case' || kind === 'queue' || kind === 'plate') {
      await { experiment: experiments, case: cases, queue: queues, plate: plates }[kind].remove(id)
      return
    }
    if (kind === 'print') return prints.forget(id)
    return shelf.remove(shelfKinds.find((kinds) => kinds.startsWith(kind)) as ShelfKind, id)
  }

  routes.get('/', async (_request, response) => {
    response.json(await all())
  })
  routes.delete('/:kind/:id', async (request, response) => {
    const kind = parseRequest(kindSchema, request.params.kind)
    const { id } = request.params
    if (!(await all()).some((one) => one.kind === kind && one.id === id)) throw notFound(`${kind} that is set aside`, id)
    await remove(kind, id)
    response.json(await all())
  })
  return routes
}
