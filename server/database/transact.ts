import { setTimeout as wait } from 'node:timers/promises'
import { BaseError, type Sequelize, type Transaction, UniqueConstraintError } from 'sequelize'

/** Of those that collide at one moment one goes through each time, so that this is more than will ever be at it at once. */
const MOST_TRIES = 40
const LONGEST_WAIT_MS = 200
/** Errors of MariaDB that say "try again": deadlock, lock wait timeout, record changed since it was read. */
const PASSING = new Set([1213, 1205, 1020])

/**
 * Runs work in a transaction, all or nothing. What only happened to collide with another transaction is tried again: it then
 * sees what the other one wrote. `work` must not change anything but the database.
 */
export async function transact<T>(sequelize: Sequelize, work: (transaction: Transaction) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await sequelize.transaction(work)
    } catch (error) {
      if (!hasCollided(error) || tries === MOST_TRIES) throw error
      await wait(5 + Math.random() * Math.min(LONGEST_WAIT_MS, 20 * tries))
    }
  }
}

export function hasCollided(error: unknown): boolean {
  if (error instanceof UniqueConstraintError) return true
  const { parent } = error as { parent?: { errno?: number } }
  return error instanceof BaseError && PASSING.has(parent?.errno ?? 0)
}
