/**
 * Tables of the desk in the order in which they can be filled: each after those that it refers to. Model files are kept apart.
 * A test holds this against the database.
 */
export const tables = [
  'parts',
  'printers',
  'nozzles',
  'materials',
  'spools',
  'profile_library',
  'shelf_revisions',
  'profiles',
  'lineups',
  'candidates',
  'jobs',
  'searches',
  'search_variants',
  'marks',
] as const
export const FILES_TABLE = 'blobs'

export const MANIFEST = 'manifest.json'
export const pathOfTable = (table: string): string => `tables/${table}.json`
export const pathOfModel = (contentKey: string): string => `models/${contentKey}`
