import { first, id, json, when } from './columns'
import type { Step } from './step'

/** Questions to prints. */
export const experiments: Step = {
  name: '13-experiments',
  async up(db) {
    await db.createTable('experiments', { id, experiment: json, revision: first, changed_at: when })
  },
}
