import { randomUUID } from 'node:crypto'
import { type Shelf, setupOf } from '@sable/contract/shelf'
import { storedReading, storedTrial } from '@sable/contract/stored/storedTrials'
import type { Reading, ReadingWrite, Trial, Trials, TrialWrite } from '@sable/contract/trials'
import { readTrial } from '@sable/core/trials/read'
import type { Models, ReadingRow } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'
import type { PhotoStore } from '../photos/photoStore'
import type { ShelfStore } from '../shelf/shelfStore'
import { asReading, asTrial } from './trialRows'

/** Test prints and what was read of them. Both are only added; a reading can be left out. */
export function createTrialStore(models: Models, shelf: ShelfStore, photos: PhotoStore) {
  const rows = () =>
    Promise.all([
      models.trials.findAll({
        order: [
          ['madeAt', 'DESC'],
          ['id', 'ASC'],
        ],
      }),
      models.readings.findAll({
        order: [
          ['readAt', 'DESC'],
          ['id', 'ASC'],
        ],
      }),
    ])

  const list = async (): Promise<Trials> => {
    const [trials, readings] = await rows()
    return {
      trials: readEach(trials, asTrial).values,
      readings: readEach(readings, asReading).values,
      photos: (await photos.list()).map((photo) => ({ id: photo.id, trial: photo.owner })),
    }
  }

  const get = async (id: string): Promise<Trial> => {
    const row = await models.trials.findByPk(id)
    if (!row) throw notFound('trial', id)
    try {
      return asTrial(row)
    } catch (error) {
      throw unreadableRecord('trial', id, String(error))
    }
  }

  return {
    list,

    async add(trial: TrialWrite, madeAt = new Date()): Promise<Trial> {
      setupFor(trial, await shelf.read())
      const row = { id: randomUUID(), trial: storedTrial.write(trial), madeAt }
      await models.trials.create(row)
      return asTrial(row)
    },

    /** @throws InputError for an answer that cannot be */
    async read({ trial: id, ...reading }: ReadingWrite, readAt = new Date()): Promise<Reading> {
      const { spec, foretold, ...place } = await get(id)
      const { found, evidence } = readTrial(spec, setupFor(place, await shelf.read()), reading, foretold)
      const row: ReadingRow = {
        id: randomUUID(),
        trialId: id,
        reading: storedReading.write({ ...reading, found, evidence: [...evidence] }),
        leftOut: false,
        readAt,
      }
      await models.readings.create(row)
      return asReading(row)
    },

    async leaveOut(id: string, leftOut: boolean): Promise<void> {
      const row = await models.readings.findByPk(id)
      if (!row) throw notFound('reading', id)
      await row.update({ leftOut })
    },

    /** Takes away a trial that nobody has read. */
    async remove(id: string): Promise<void> {
      if ((await models.readings.count({ where: { trialId: id } })) > 0)
        throw new ProblemError(409, 'trial-read', 'This trial was read; what was read is kept.', id, 'Leave its readings out instead.')
      await photos.removeOf(id)
      if ((await models.trials.destroy({ where: { id } })) === 0) throw notFound('trial', id)
    },

    async unreadable(): Promise<Unreadable[]> {
      const [trials, readings] = await rows()
      return [
        ...readEach(trials, asTrial).unreadable.map(({ row, why }) => ({
          kind: 'trial' as const,
          id: row.id,
          name: row.id,
          why,
          stored: row.trial,
        })),
        ...readEach(readings, asReading).unreadable.map(({ row, why }) => ({
          kind: 'reading' as const,
          id: row.id,
          name: row.id,
          why,
          stored: row.reading,
        })),
      ]
    },

    /** Takes away what cannot be read; with a trial goes what was read of it. */
    async forget(kind: 'trial' | 'reading', id: string): Promise<void> {
      await models.readings.destroy({ where: kind === 'trial' ? { trialId: id } : { id } })
      if (kind === 'reading') return
      await photos.removeOf(id)
      await models.trials.destroy({ where: { id } })
    },
  }
}

export type TrialStore = ReturnType<typeof createTrialStore>

/** What a trial is printed with. @throws ProblemError naming what the shelf lacks */
function setupFor(trial: TrialWrite | Omit<Trial, 'spec'>, shelf: Shelf) {
  const setup = setupOf(trial, shelf)
  if (setup) return setup
  throw new ProblemError(
    422,
    'record-unknown',
    'The shelf lacks what this trial is printed with.',
    [trial.printer, trial.nozzle, trial.material, trial.spool ?? ''].filter((name) => name !== '').join(', '),
    'Bring it back to the shelf, or make the trial anew.',
  )
}
