import { readFile } from 'node:fs/promises'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import { programLines } from '@sable/core/program/lineStream'
import type { Models, PrintRunRow } from '../../database/models'
import { ProblemError } from '../../http/problems'

const [pack, unpack] = [promisify(gzip), promisify(gunzip)]

/** `running` until it ends or breaks off; what a dead server left running has broken off. */
export type RunState = 'running' | 'broken' | 'done'

/** Programs of prints, and how far machines have come with them. */
export function createRunStore(models: Models) {
  return {
    async keepProgram(printId: string, path: string, sha256: string): Promise<void> {
      const packed = (await pack(await readFile(path))).toString('base64')
      await models.printPrograms.upsert({ printId, sha256, packed })
    },

    /** Lines of a print's program, without comments; at its end it waits until the last move is done. */
    async lines(printId: string): Promise<string[]> {
      const row = await models.printPrograms.findByPk(printId)
      if (!row)
        throw new ProblemError(
          409,
          'no-program',
          'This print has no program here.',
          printId,
          'Begin it from its column with “Send it to the machine”.',
        )
      const text = (await unpack(Buffer.from(row.packed, 'base64'))).toString('latin1')
      // The answer to the second comes when the first has waited.
      return [...programLines(text), 'M400', 'M400']
    },

    async hasProgram(printId: string): Promise<boolean> {
      return (await models.printPrograms.count({ where: { printId } })) > 0
    },

    async write(run: Omit<PrintRunRow, 'changedAt'>): Promise<void> {
      await models.printRuns.upsert({ ...run, changedAt: new Date() })
    },

    /** The last run of a printer, where it broke off. */
    async broken(printer: string): Promise<PrintRunRow | undefined> {
      const row = await models.printRuns.findOne({ where: { printer }, order: [['changedAt', 'DESC']] })
      return row?.state === 'broken' ? row : undefined
    },

    /** What a server that is gone left running has broken off. */
    async breakOff(): Promise<void> {
      await models.printRuns.update({ state: 'broken', why: 'The server was ended in the middle of it.' }, { where: { state: 'running' } })
    },

    async settle(printId: string): Promise<void> {
      await models.printRuns.update({ state: 'done' }, { where: { printId, state: 'broken' } })
    },
  }
}

export type RunStore = ReturnType<typeof createRunStore>
