import type { RuledOutList } from '@sable/contract/experiments'
import { storedExperiment } from '@sable/contract/stored/storedPrints'
import { type Experiment, type TriedPrint, toldTries } from '@sable/core/log/experiment'
import { ruledOutBook } from '@sable/core/log/ruledOutBook'
import { askedByCase } from '@sable/core/log/ruledOutCauses'
import type { Models } from '../../database/models'
import type { CaseStore } from '../cases/caseStore'
import { createKeptStore } from '../kept/keptStore'
import type { PrintStore } from '../prints/printStore'

/** Questions to prints, and what came of them. */
export function createExperimentStore(models: Models, prints: Pick<PrintStore, 'get'>, cases: Pick<CaseStore, 'list'>) {
  const kept = createKeptStore<Experiment>(models.experiments, 'experiment', storedExperiment)
  return {
    ...kept,

    /** What all of them and all cases ruled out, by fault, printer and reel. */
    async ruledOut(): Promise<RuledOutList> {
      const experiments = await kept.list()
      const known = new Map<string, TriedPrint>()
      for (const id of new Set(experiments.flatMap(({ tries }) => tries.map(({ print }) => print)))) {
        // Prints that are gone, or cannot be read, rule nothing out.
        const print = await prints.get(id).catch(() => undefined)
        if (print) known.set(id, { ...print.frozen, id, at: print.line.plannedAt })
      }
      const asked = experiments.map((one) => ({ ...one, tries: toldTries(one, [...known.values()]) }))
      return ruledOutBook([...asked, ...(await cases.list()).map(askedByCase)]).map(({ spool, questions, ...out }) => ({
        ...out,
        ...(spool === undefined ? {} : { spool }),
        questions: [...questions],
      }))
    },
  }
}

export type ExperimentStore = ReturnType<typeof createExperimentStore>
