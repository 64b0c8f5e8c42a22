import type { PlacedReading } from '@sable/contract/trials'
import type { Models } from '../../database/models'
import { readEach } from '../../database/readEach'
import { asLine, outcomeIn } from './printRows'

/** What prints that ended and are not left out teach, where it belongs, the oldest first. */
export const printEvidence = (models: Models) => async (): Promise<PlacedReading[]> => {
  const rows = await models.prints.findAll({
    where: { leftOut: false, state: ['good', 'usable'] },
    attributes: { exclude: ['frozen', 'words'] },
    order: [
      ['plannedAt', 'ASC'],
      ['id', 'ASC'],
    ],
    raw: true,
  })
  return readEach(rows, (row) => ({ line: asLine(row), kept: outcomeIn(row) })).values.flatMap(({ line, kept }) => {
    if (!kept || kept.evidence.length === 0) return []
    const { id: reading, printer, nozzle, material, spool, name, plannedAt } = line
    const from = `print of ${name}, ${plannedAt.slice(0, 10)}`
    return [
      { printer, nozzle, material, ...(spool === undefined ? {} : { spool }), evidence: kept.evidence, scores: kept.scores, reading, from },
    ]
  })
}
