import { createHash, randomUUID } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { mkdir, rm, writeFile } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { LARGEST_UPLOAD } from '@sable/contract/part'
import { ProblemError, tooLarge } from '../../http/problems'

/** A model file that has come, as it lies in the desk's folder until it is read. */
export interface Upload {
  readonly path: string
  readonly size: number
  /** SHA-256 of the file. */
  readonly contentKey: string
  readonly remove: () => Promise<void>
}

/** The database reads only what everybody may read; the folder around it lets nobody else in. */
const READABLE = 0o644

/** What a stream says when whoever sent it is gone. */
const BROKEN_OFF = new Set(['ECONNRESET', 'ECONNABORTED', 'ERR_STREAM_PREMATURE_CLOSE'])

/** What an upload may be. */
interface UploadBounds {
  /** Bytes, and what is larger than that, for the sentence. */
  readonly most?: number
  readonly what?: string
  /** One that brings nothing for so long, or is not over after so long, ms, has ended without saying so. */
  readonly silentMs?: number
  readonly wholeMs?: number
}

/**
 * Takes a file from a request onto the disk, piece by piece: ten of them at once take no more memory than one.
 *
 * @throws ProblemError 413 for one that is announced or turns out to be too large, 408 for one that stops coming
 */
export async function receiveUpload(
  request: IncomingMessage,
  folder: string,
  { most = LARGEST_UPLOAD, what = 'The file', silentMs = 30_000, wholeMs = 600_000 }: UploadBounds = {},
): Promise<Upload> {
  if (Number(request.headers['content-length'] ?? 0) > most) throw tooLarge(what, most)
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const path = join(folder, `${randomUUID()}.part`)
  const remove = (): Promise<void> => rm(path, { force: true })
  const hash = createHash('sha256')
  let size = 0
  const late = new AbortController()
  const whole = setTimeout(() => late.abort(), wholeMs)
  const silent = setTimeout(() => late.abort(), silentMs)
  try {
    await pipeline(
      request,
      async function* counted(pieces: AsyncIterable<Buffer>) {
        for await (const piece of pieces) {
          silent.refresh()
          size += piece.length
          if (size > most) throw tooLarge(what, most)
          hash.update(piece)
          yield piece
        }
      },
      createWriteStream(path, { mode: READABLE }),
      { signal: late.signal },
    )
    return { path, size, contentKey: hash.digest('hex'), remove }
  } catch (error) {
    await remove()
    if (late.signal.aborted) throw new ProblemError(408, 'upload-stopped', 'The file stopped coming.', '', 'Load it again.')
    if (BROKEN_OFF.has((error as NodeJS.ErrnoException).code ?? ''))
      throw new ProblemError(400, 'upload-broken-off', 'The file broke off.', '', 'Load it again.')
    throw error
  } finally {
    clearTimeout(whole)
    clearTimeout(silent)
  }
}

/** Bytes that are at hand, as if they had been uploaded. */
export async function asUpload(bytes: Uint8Array, folder: string): Promise<Upload> {
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const path = join(folder, `${randomUUID()}.part`)
  await writeFile(path, bytes, { mode: READABLE })
  const contentKey = createHash('sha256').update(bytes).digest('hex')
  return { path, size: bytes.length, contentKey, remove: () => rm(path, { force: true }) }
}

/** Removes what uploads left behind that were under way when the server ended. */
export const clearUploads = (folder: string): Promise<void> => rm(folder, { recursive: true, force: true })
