import { id, json, refers, when, yes } from './columns'
import type { Step } from './step'

/** Test prints, what was read of them, and photographs. */
export const trials: Step = {
  name: '10-trials',
  async up(db) {
    await db.createTable('trials', { id, trial: json, made_at: when })
    await db.createTable('readings', {
      id,
      trial_id: { ...id, primaryKey: false, allowNull: false, ...refers('trials') },
      reading: json,
      left_out: yes,
      read_at: when,
    })
    await db.createTable('trial_photos', {
      id,
      trial_id: { ...id, primaryKey: false, allowNull: false, ...refers('trials') },
      photo: json,
      taken_at: when,
    })
  },
}
