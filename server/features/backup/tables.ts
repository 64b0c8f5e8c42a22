import { tableNames } from '../../database/models'

export const FILES_TABLE = 'blobs'

/**
 * Tables of the desk in the order in which they can be filled: each after those that it refers to. Model files are kept apart. A
 * test holds this against the database.
 */
export const tables: readonly string[] = tableNames.filter((name) => name !== FILES_TABLE)

export const MANIFEST = 'manifest.json'
export const pathOfTable = (table: string): string => `tables/${table}.json`
export const pathOfModel = (contentKey: string): string => `models/${contentKey}`
