import { randomUUID } from 'node:crypto'
import type { RuledOutList, StoredExperiment } from '@sable/contract/experiments'
import { storedExperiment } from '@sable/contract/stored/storedPrints'
import { type Experiment, type TriedPrint, toldTries } from '@sable/core/log/experiment'
import { ruledOutBook } from '@sable/core/log/ruledOutBook'
import type { ExperimentRow, Models } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { notFound, ProblemError } from '../../http/problems'
import type { PrintStore } from '../prints/printStore'

const told = ({ id, experiment, revision, changedAt }: ExperimentRow): StoredExperiment => ({
  ...storedExperiment.read(experiment),
  id,
  revision,
  changedAt: changedAt.toISOString(),
})

/** Questions to prints, and what came of them. */
export function createExperimentStore(models: Models, prints: Pick<PrintStore, 'get'>) {
  const rows = () => models.experiments.findAll({ order: [['changedAt', 'DESC']] })
  const list = async (): Promise<StoredExperiment[]> => readEach(await rows(), told).values
  return {
    list,

    /** What all of them ruled out, by fault, printer and reel. */
    async ruledOut(): Promise<RuledOutList> {
      const experiments = await list()
      const known = new Map<string, TriedPrint>()
      for (const id of new Set(experiments.flatMap(({ tries }) => tries.map(({ print }) => print)))) {
        // Prints that are gone, or cannot be read, rule nothing out.
        const print = await prints.get(id).catch(() => undefined)
        if (print) known.set(id, { ...print.frozen, id, at: print.line.plannedAt })
      }
      const asked = experiments.map((one) => ({ ...one, tries: toldTries(one, [...known.values()]) }))
      return ruledOutBook(asked).map(({ spool, questions, ...out }) => ({
        ...out,
        ...(spool === undefined ? {} : { spool }),
        questions: [...questions],
      }))
    },

    async add(experiment: Experiment, changedAt = new Date()): Promise<StoredExperiment> {
      const row = { id: randomUUID(), experiment: storedExperiment.write(experiment), revision: 1, changedAt }
      await models.experiments.create(row)
      return told(row)
    },

    /** @throws ProblemError 409 where it was changed meanwhile */
    async write(id: string, experiment: Experiment, revision: number): Promise<StoredExperiment[]> {
      const change = { experiment: storedExperiment.write(experiment), revision: revision + 1, changedAt: new Date() }
      const [count] = await models.experiments.update(change, { where: { id, revision } })
      if (count === 0) {
        if (!(await models.experiments.findByPk(id))) throw notFound('experiment', id)
        throw new ProblemError(
          409,
          'experiment-changed',
          'The experiment was changed in another window.',
          id,
          'Look at what stands there now, and change it again.',
        )
      }
      return list()
    },

    async remove(id: string): Promise<StoredExperiment[]> {
      if ((await models.experiments.destroy({ where: { id } })) === 0) throw notFound('experiment', id)
      return list()
    },

    async unreadable(): Promise<Unreadable[]> {
      return readEach(await rows(), told).unreadable.map(({ row, why }) => ({
        kind: 'experiment' as const,
        id: row.id,
        name: row.id,
        why,
        stored: row.experiment,
      }))
    },
  }
}

export type ExperimentStore = ReturnType<typeof createExperimentStore>
