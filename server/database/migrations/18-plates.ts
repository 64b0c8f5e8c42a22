import { first, id, json, when } from './columns'
import type { Step } from './step'

/** Plates of several parts. */
export const plates: Step = {
  name: '18-plates',
  async up(db) {
    await db.createTable('plates', { id, record: json, revision: first, changed_at: when })
  },
}
