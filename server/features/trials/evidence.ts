import type { PlacedReading } from '@sable/contract/trials'
import { trialKinds } from '@sable/core/trials/kinds'
import type { Models } from '../../database/models'
import { readEach } from '../../database/readEach'
import { asReading, asTrial } from './trialRows'

/** All that was read and is not left out, where it belongs, the oldest first. */
export const trialEvidence = (models: Models) => async (): Promise<PlacedReading[]> => {
  const [trialRows, readingRows] = await Promise.all([
    models.trials.findAll(),
    models.readings.findAll({
      where: { leftOut: false },
      order: [
        ['readAt', 'ASC'],
        ['id', 'ASC'],
      ],
    }),
  ])
  const trials = new Map(readEach(trialRows, asTrial).values.map((trial) => [trial.id, trial]))
  return readEach(readingRows, asReading).values.flatMap(({ id: reading, trial: id, evidence, readAt }) => {
    const trial = trials.get(id)
    if (!trial || evidence.length === 0) return []
    const { printer, nozzle, material, spool, spec } = trial
    const from = `${trialKinds[spec.kind].name.toLowerCase()}, ${readAt.slice(0, 10)}`
    return [{ printer, nozzle, material, ...(spool === undefined ? {} : { spool }), evidence, reading, from }]
  })
}
