import { cellSchema, type MatrixCell } from '@sable/core/matrix/matrix'
import { createStore, getMany, setMany } from 'idb-keyval'

/** Figures of cells that were worked out before, in this browser: a matrix that is opened again is there at once. */
const store = createStore('sable-matrix', 'cells')

declare const __BUILD__: string | undefined
/** What is kept is of one build of the models. */
const build = typeof __BUILD__ === 'undefined' ? '' : __BUILD__

/** A short name for a long key: SHA-256, hexadecimal. */
export async function cellKey(text: string): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(`${build} ${text}`))
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('')
}

/** What is known of cells, in the order of their keys; nothing of those that are not there, or cannot be read. */
export async function knownCells(keys: readonly string[]): Promise<readonly (MatrixCell | undefined)[]> {
  try {
    return (await getMany([...keys], store)).map((stored) => cellSchema.safeParse(stored).data)
  } catch {
    // A browser that keeps nothing has everything worked out anew.
    return keys.map(() => undefined)
  }
}

export const keepCells = (cells: readonly (readonly [key: string, cell: MatrixCell])[]): Promise<void> =>
  setMany(
    cells.map(([key, cell]) => [key, cell]),
    store,
  ).catch(() => {})
