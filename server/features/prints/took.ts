import type { PrintUse } from '@sable/contract/shelf'
import { results } from '@sable/core/log/outcome'
import type { Models } from '../../database/models'
import { readEach } from '../../database/readEach'
import { asLine, outcomeIn } from './printRows'

/** What each print that ended took, the oldest first. */
export const printsTook = (models: Models) => async (): Promise<PrintUse[]> => {
  const rows = await models.prints.findAll({
    where: { state: [...results] },
    attributes: { exclude: ['frozen', 'words'] },
    order: [['plannedAt', 'ASC']],
    raw: true,
  })
  return readEach(rows, (row) => ({ line: asLine(row), kept: outcomeIn(row) })).values.map(({ line, kept }) => {
    const { name, printer, nozzle, material, spool, endedAt, plannedAt, actualS, timeS, massG, cost, atZ, heightMm } = line
    const share = atZ === undefined || heightMm === 0 ? 1 : Math.min(1, atZ / heightMm)
    const reels = kept?.outcome.spools ?? []
    const used = reels.length > 0 ? reels : spool === undefined ? [] : [{ spool }]
    return {
      at: endedAt ?? plannedAt,
      name,
      printer,
      nozzle,
      material,
      hours: (actualS ?? share * timeS) / 3600,
      cost: share * cost,
      reels: used.map((reel) => ({ ...reel, foretoldG: (share * massG) / used.length })),
    }
  })
}
