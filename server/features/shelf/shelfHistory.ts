import { saysTheSame } from '@sable/contract/saysTheSame'
import type { RecordRevisions, ShelfKind } from '@sable/contract/shelf'
import { storedRecords } from '@sable/contract/stored/storedShelf'
import type { Transaction } from 'sequelize'
import type { Models } from '../../database/models'
import { readEach } from '../../database/readEach'

/** Every version that a record ever had. */
export function createShelfHistory({ shelfRevisions }: Models) {
  return {
    /** Keeps what a record says, unless the newest version says the same. */
    async keep(kind: ShelfKind, recordKey: string, record: string, transaction: Transaction): Promise<void> {
      const within = { transaction }
      const [last] = await shelfRevisions.findAll({ where: { kind, recordKey }, order: [['revision', 'DESC']], limit: 1, ...within })
      if (last && readsTheSame(kind, last.record, record)) return
      await shelfRevisions.create({ kind, recordKey, revision: (last?.revision ?? 0) + 1, record, createdAt: new Date() }, within)
    },

    /** The newest revision of each record that ever was on the shelf. */
    async newest(kind: ShelfKind, transaction: Transaction): Promise<ReadonlyMap<string, number>> {
      const rows = await shelfRevisions.findAll({ where: { kind }, attributes: ['recordKey', 'revision'], raw: true, transaction })
      const last = new Map<string, number>()
      for (const { recordKey, revision } of rows) last.set(recordKey, Math.max(revision, last.get(recordKey) ?? 0))
      return last
    },

    /** Versions of a record, newest first; those that cannot be read are left out. */
    async of(kind: ShelfKind, recordKey: string): Promise<RecordRevisions> {
      const rows = await shelfRevisions.findAll({ where: { kind, recordKey }, order: [['revision', 'DESC']] })
      return readEach(rows, ({ revision, record, createdAt }) => ({
        revision,
        record: storedRecords[kind].read(record),
        createdAt: createdAt.toISOString(),
      })).values
    },
  }
}

/** Whether two texts hold the same record, whichever versions wrote them; one that cannot be read is like no other. */
function readsTheSame(kind: ShelfKind, a: string, b: string): boolean {
  try {
    return saysTheSame(storedRecords[kind].read(a), storedRecords[kind].read(b))
  } catch {
    return a === b
  }
}
