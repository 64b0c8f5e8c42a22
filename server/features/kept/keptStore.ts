import { randomUUID } from 'node:crypto'
import type { StoredKind } from '@sable/contract/setAside'
import type { KeptRow, Table } from '../../database/models'
import { readEach, type Unreadable } from '../../database/readEach'
import { notFound, ProblemError } from '../../http/problems'

/** What every kept thing has beside its own. */
interface Kept {
  readonly id: string
  readonly revision: number
  readonly changedAt: string
}

/** Things that are few, and are kept whole in one row each: written from a revision, told with the latest first. */
export function createKeptStore<T extends object>(
  table: Table<KeptRow>,
  kind: StoredKind,
  stored: { readonly read: (text: string) => T; readonly write: (one: T) => string },
) {
  const told = ({ id, record, revision, changedAt }: KeptRow): T & Kept => ({
    ...stored.read(record),
    id,
    revision,
    changedAt: changedAt.toISOString(),
  })
  const rows = () => table.findAll({ order: [['changedAt', 'DESC']] })
  const list = async (): Promise<(T & Kept)[]> => readEach(await rows(), told).values
  return {
    list,

    async add(one: T, changedAt = new Date()): Promise<T & Kept> {
      const row = { id: randomUUID(), record: stored.write(one), revision: 1, changedAt }
      await table.create(row)
      return told(row)
    },

    /** @throws ProblemError 409 where it was changed meanwhile */
    async write(id: string, one: T, revision: number): Promise<(T & Kept)[]> {
      const change = { record: stored.write(one), revision: revision + 1, changedAt: new Date() }
      const [count] = await table.update(change, { where: { id, revision } })
      if (count === 0) {
        if (!(await table.findByPk(id))) throw notFound(kind, id)
        throw new ProblemError(
          409,
          `${kind}-changed`,
          `The ${kind} was changed in another window.`,
          id,
          'Look at what stands there now, and change it again.',
        )
      }
      return list()
    },

    async remove(id: string): Promise<(T & Kept)[]> {
      if ((await table.destroy({ where: { id } })) === 0) throw notFound(kind, id)
      return list()
    },

    async unreadable(): Promise<Unreadable[]> {
      return readEach(await rows(), told).unreadable.map(({ row, why }) => ({ kind, id: row.id, name: row.id, why, stored: row.record }))
    },
  }
}
