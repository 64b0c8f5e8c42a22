import { first, id, json, when } from './columns'
import type { Step } from './step'

/** Cases of faults. */
export const cases: Step = {
  name: '16-cases',
  async up(db) {
    await db.createTable('cases', { id, record: json, revision: first, changed_at: when })
  },
}
