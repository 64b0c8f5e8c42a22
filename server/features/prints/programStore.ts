import { readFile } from 'node:fs/promises'
import { promisify } from 'node:util'
import { gunzip, gzip } from 'node:zlib'
import { programLines } from '@sable/core/program/lineStream'
import type { Models } from '../../database/models'
import { ProblemError } from '../../http/problems'

const [pack, unpack] = [promisify(gzip), promisify(gunzip)]

/** Programs of prints, packed. */
export function createProgramStore(models: Models) {
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
  }
}

export type ProgramStore = ReturnType<typeof createProgramStore>
