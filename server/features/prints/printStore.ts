import { randomUUID } from 'node:crypto'
import type { FrozenPrint, Print, PrintFilter, PrintLines, Trail } from '@sable/contract/prints'
import { setupOf } from '@sable/contract/shelf'
import { storedOutcome, storedPrint } from '@sable/contract/stored/storedPrints'
import { type PrintOutcome, taughtBy } from '@sable/core/log/outcome'
import { trailOf } from '@sable/core/log/trail'
import { Op } from 'sequelize'
import type { Models, PrintRow } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { notFound, ProblemError, unreadableRecord } from '../../http/problems'
import type { PhotoStore } from '../photos/photoStore'
import type { ShelfStore } from '../shelf/shelfStore'
import { asLine, outcomeIn, writtenOf } from './printRows'

/** What a line is made of: neither the print nor its outcome, which are large. */
const LINE = ['id', 'state', 'summary', 'leftOut', 'plannedAt', 'startedAt', 'endedAt', 'clockS'] as const

/** Prints, from the day on which they are begun: frozen, run, ended, and told of. */
export function createPrintStore(models: Models, shelf: ShelfStore, photos: PhotoStore) {
  const rowOf = async (id: string) => {
    const row = await models.prints.findByPk(id)
    if (!row) throw notFound('print', id)
    return row
  }
  const frozenOf = ({ id, frozen }: PrintRow): FrozenPrint => {
    try {
      return storedPrint.read(frozen)
    } catch (error) {
      throw unreadableRecord('print', id, String(error))
    }
  }

  const get = async (id: string): Promise<Print> => {
    const row = await rowOf(id)
    const kept = outcomeIn(row)
    const pictures = await photos.list(id)
    return { line: asLine(row), frozen: frozenOf(row), ...(kept ? { kept } : {}), photos: pictures.map((photo) => photo.id) }
  }

  return {
    get,

    async list(filter: PrintFilter): Promise<PrintLines> {
      const { printer, spool, profile, part, state, words, limit, skip } = filter
      const where = {
        ...(printer === undefined ? {} : { printer }),
        ...(spool === undefined ? {} : { spool }),
        ...(profile === undefined ? {} : { profile }),
        ...(part === undefined ? {} : { part }),
        ...(state === undefined ? {} : { state }),
        ...(words === undefined ? {} : { [Op.and]: words.split(/\s+/).map((word) => ({ words: { [Op.like]: `%${escaped(word)}%` } })) }),
      }
      const { rows, count } = await models.prints.findAndCountAll({
        where,
        attributes: [...LINE],
        order: [
          ['plannedAt', 'DESC'],
          ['id', 'ASC'],
        ],
        limit,
        offset: skip,
        raw: true,
      })
      return { prints: readEach(rows, asLine).values, total: count }
    },

    /** All prints of a part, by its name, the oldest first, each beside the one before. */
    async trail(name: string): Promise<Trail> {
      const rows = await models.prints.findAll({ where: { words: { [Op.like]: `${escaped(name)}%` } }, order: [['plannedAt', 'ASC']] })
      const known = readEach(rows, (row) => ({ line: asLine(row), made: storedPrint.read(row.frozen), kept: outcomeIn(row) }))
      const own = known.values.filter(({ line }) => line.name === name && line.state !== 'planned')
      const steps = trailOf(
        own.map(({ line, made, kept }) => ({ id: line.id, made, marks: kept?.outcome.marks ?? {}, against: kept?.outcome.against })),
      )
      return steps.map(({ changed, mark, verdict }, i) => ({
        line: own[i]!.line,
        changed: [...changed],
        ...(mark === undefined ? {} : { mark }),
        ...(verdict === undefined ? {} : { verdict }),
      }))
    },

    async plan(frozen: FrozenPrint, plannedAt = new Date()): Promise<Print> {
      refuseUnknown(frozen, await shelf.records())
      const id = randomUUID()
      await models.prints.create({
        id,
        state: 'planned',
        printer: frozen.printer,
        ...writtenOf(frozen),
        frozen: storedPrint.write(frozen),
        outcome: null,
        leftOut: false,
        plannedAt,
        startedAt: null,
        endedAt: null,
        clockS: null,
      })
      return get(id)
    },

    /** @throws ProblemError for one that has begun already */
    async start(id: string, startedAt = new Date()): Promise<Print> {
      const row = await rowOf(id)
      if (row.state !== 'planned')
        throw new ProblemError(409, 'print-begun', 'This print has begun already.', id, 'Begin another one from its column.')
      await row.update({ state: 'running', startedAt })
      return get(id)
    },

    /** A machine has come to its end with it, after so many seconds of its own clock; what came out is for a person to say. */
    async cameToEnd(id: string, seconds: number | undefined): Promise<void> {
      const row = await rowOf(id)
      await row.update({ endedAt: new Date(), clockS: seconds ?? null })
    },

    /** Says what became of a print, or says it anew; and works out what that teaches. */
    async end(id: string, outcome: PrintOutcome, endedAt?: Date): Promise<Print> {
      const row = await rowOf(id)
      const frozen = frozenOf(row)
      if (outcome.atZ !== undefined && outcome.atZ > frozen.foretold.heightMm + 1)
        throw new ProblemError(
          422,
          'print-above',
          `${outcome.atZ} mm is above the top of the print, ${frozen.foretold.heightMm.toFixed(1)} mm.`,
          'height at which it ended',
          'Measure from the bed up.',
        )
      const { evidence, scores } = taughtBy(frozen.foretold, outcome)
      await row.update({
        state: outcome.result,
        ...writtenOf(frozen, outcome),
        outcome: storedOutcome.write({ outcome, evidence: [...evidence], scores }),
        endedAt: endedAt ?? row.endedAt ?? new Date(),
      })
      return get(id)
    },

    async leaveOut(id: string, leftOut: boolean): Promise<Print> {
      await (await rowOf(id)).update({ leftOut })
      return get(id)
    },

    /** Takes away a print that was never begun. */
    async remove(id: string): Promise<void> {
      const row = await rowOf(id)
      if (row.state !== 'planned')
        throw new ProblemError(
          409,
          'print-kept',
          'This print was made; it stays in the book.',
          id,
          'Leave it out of what is learned instead.',
        )
      await photos.removeOf(id)
      await models.printPrograms.destroy({ where: { printId: id } })
      await row.destroy()
    },

    async unreadable(): Promise<Unreadable[]> {
      const rows = await models.prints.findAll()
      return readEach(rows, (row) => [asLine(row), storedPrint.read(row.frozen), outcomeIn(row)]).unreadable.map(({ row, why }) => ({
        kind: 'print' as const,
        id: row.id,
        name: row.words.split('\n')[0] || row.id,
        why,
        stored: row.frozen,
      }))
    },

    async forget(id: string): Promise<void> {
      await photos.removeOf(id)
      await models.printPrograms.destroy({ where: { printId: id } })
      await models.printRuns.destroy({ where: { printId: id } })
      await models.prints.destroy({ where: { id } })
    },
  }
}

export type PrintStore = ReturnType<typeof createPrintStore>

/** As a pattern of SQL takes it literally. */
const escaped = (word: string): string => word.replace(/[\\%_]/g, '\\$&')

/** @throws ProblemError naming what the shelf lacks */
function refuseUnknown(frozen: FrozenPrint, records: Parameters<typeof setupOf>[1]): void {
  if (setupOf(frozen, records)) return
  throw new ProblemError(
    422,
    'record-unknown',
    'The shelf lacks what this print is made with.',
    [frozen.printer, frozen.nozzle, frozen.material, frozen.spool ?? ''].filter((name) => name !== '').join(', '),
    'Bring it back to the shelf, or begin the print anew.',
  )
}
