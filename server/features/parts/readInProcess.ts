import { type ChildProcess, fork } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { constants, setPriority } from 'node:os'
import type { MeshReport } from '@sable/core/mesh/repair'
import { InputError } from '@sable/core/units/errors'
import type { ReadAnswer } from './readPartProcess'

/** Reads a model file away from the server. @param signal ends it when nobody waits any more */
export type PartReader = (path: string, fileName: string, signal?: AbortSignal) => Promise<MeshReport>

/** What reading one file may take. */
export interface ReadingBounds {
  readonly seconds: number
  readonly megabytes: number
  /** Of the engine's own memory, which holds lists and texts. */
  readonly heapMegabytes: number
}

export const readingBounds: ReadingBounds = { seconds: 10, megabytes: 700, heapMegabytes: 450 }

const LOOK_MS = 50
const PAGE_BYTES = 4096

/**
 * Reads each file in a new process, ended when it takes more time or memory than any file should. A thread would not do: when
 * its engine runs out of memory, that ends the whole program.
 *
 * @param processFile `readPartProcess`, built
 * @param execArgv what Node needs to run it as it stands, in tests
 */
export function readInProcess(processFile: string, execArgv: readonly string[] = [], bounds: ReadingBounds = readingBounds): PartReader {
  return (path, fileName, signal) =>
    new Promise((resolve, reject) => {
      const child = fork(processFile, [path, fileName], {
        execArgv: [...execArgv, `--max-old-space-size=${bounds.heapMegabytes}`],
        // It gets nothing of what the server knows.
        env: { PATH: process.env.PATH },
        serialization: 'advanced',
        stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
      })
      // Whoever asks for anything else goes first.
      if (child.pid !== undefined) setPriority(child.pid, constants.priority.PRIORITY_BELOW_NORMAL)
      let refusal: InputError | undefined
      const end = (why: InputError): void => {
        refusal ??= why
        child.kill('SIGKILL')
      }
      const timer = setTimeout(() => end(tookTooLong(fileName, bounds.seconds)), bounds.seconds * 1000)
      const watch = setInterval(() => {
        if (memoryOf(child) > bounds.megabytes * 2 ** 20) end(tookTooMuch(fileName, bounds.megabytes))
      }, LOOK_MS)
      const leave = (): void => end(new InputError('reading-cancelled', 'Reading was given up.', fileName, 'Load the file again.'))
      signal?.addEventListener('abort', leave, { once: true })
      let answer: ReadAnswer | undefined
      child.on('message', (message) => {
        answer = message as ReadAnswer
      })
      const done = (): void => {
        clearTimeout(timer)
        clearInterval(watch)
        signal?.removeEventListener('abort', leave)
        if (answer && 'report' in answer) resolve(answer.report)
        else if (answer) reject(new InputError(answer.refusal.code, answer.refusal.message, answer.refusal.where, answer.refusal.remedy))
        // What ends without a word has most likely used up its memory.
        else reject(refusal ?? tookTooMuch(fileName, bounds.megabytes))
      }
      child.on('exit', done)
      child.on('error', done)
      if (signal?.aborted) leave()
    })
}

const tookTooLong = (fileName: string, seconds: number): InputError =>
  new InputError(
    'reading-took-too-long',
    `Reading the model took more than ${seconds} s and was given up.`,
    fileName,
    'Reduce the mesh before loading it.',
  )

const tookTooMuch = (fileName: string, megabytes: number): InputError =>
  new InputError(
    'reading-took-too-much',
    `Reading the model took more than ${megabytes} MB of memory and was given up.`,
    fileName,
    'Reduce the mesh before loading it.',
  )

/** Memory that a process holds, bytes; 0 where it cannot be told. */
function memoryOf({ pid }: ChildProcess): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * PAGE_BYTES
  } catch {
    return 0
  }
}
