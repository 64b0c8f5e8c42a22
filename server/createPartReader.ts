import { InputError } from '@sable/core/errors'
import type { MeshReport } from '@sable/core/mesh/repair'
import Piscina from 'piscina'
import type { PartReader } from './parts'

/** Reads parts in threads of their own. @param workerFile the built `readPartWorker` */
export function createPartReader(workerFile: string): PartReader & { close: () => Promise<void> } {
  const threads = new Piscina({ filename: workerFile, maxThreads: 2, minThreads: 0, idleTimeout: 30_000 })
  const read = async (bytes: Uint8Array, fileName: string): Promise<MeshReport> => {
    const answer = await threads.run({ bytes, fileName })
    if ('refusal' in answer) {
      const { code, message, where, remedy } = answer.refusal
      throw new InputError(code, message, where, remedy)
    }
    return answer.report
  }
  return Object.assign(read, { close: () => threads.destroy() })
}
