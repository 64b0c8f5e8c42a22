import type { Models, PrintRunRow } from '../../database/models'

/** `running` until it ends or breaks off; what a dead server left running has broken off. */
export type RunState = 'running' | 'broken' | 'done'

/** How far machines have come with prints. */
export function createRunStore(models: Models) {
  return {
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
