import { readFileSync } from 'node:fs'
import { readPart } from '@sable/core/formats/readPart'
import type { MeshReport } from '@sable/core/mesh/repair'

/** What a reading process answers with: a report, or a refusal. */
export type ReadAnswer =
  | { readonly report: MeshReport }
  | { readonly refusal: { readonly code: string; readonly message: string; readonly where: string; readonly remedy: string } }

/** Runs in a process of its own, which may die: whatever a file does to it, the server and its other requests do not notice. */
const [path, fileName] = process.argv.slice(2) as [string, string]
const answer = (what: ReadAnswer): void => {
  process.send?.(what, () => process.exit(0))
}
try {
  answer({ report: readPart(readFileSync(path), fileName, '').report })
} catch (error) {
  if (!(error instanceof Error && error.name === 'InputError')) throw error
  const { code, message, where, remedy } = error as Error & { code: string; where: string; remedy: string }
  answer({ refusal: { code, message, where, remedy } })
}
