import { first, id, json, when } from './columns'
import type { Step } from './step'

/** Queues of prints. */
export const queues: Step = {
  name: '17-queues',
  async up(db) {
    await db.createTable('queues', { id, record: json, revision: first, changed_at: when })
  },
}
