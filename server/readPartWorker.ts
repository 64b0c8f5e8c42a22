import { readPart } from '@sable/core/formats/readPart'
import type { MeshReport } from '@sable/core/mesh/repair'

/** Runs in a thread: parsing a large file would hold up every other request. */
export default function readPartWorker({
  bytes,
  fileName,
}: {
  bytes: Uint8Array
  fileName: string
}): { report: MeshReport } | { refusal: object } {
  try {
    return { report: readPart(bytes, fileName, '').report }
  } catch (error) {
    // A class does not survive the way between threads; its fields do.
    if (error instanceof Error && error.name === 'InputError') return { refusal: { ...error, message: error.message } }
    throw error
  }
}
