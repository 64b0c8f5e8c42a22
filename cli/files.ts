import { type FileHandle, open, readFile, writeFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { type ProfileFile, readProfileFile } from '@sable/core/formats/profileFile'
import { readPart } from '@sable/core/formats/readPart'
import type { Part } from '@sable/core/mesh/part'
import { InputError } from '@sable/core/units/errors'
import type { z } from 'zod'
import { contentKey } from './contentKey'

/** Stands for standard input and output. */
export const STREAM = '-'

/** What a model that came without a name would be called: told by how it begins. */
const nameFor = (bytes: Buffer): string => {
  if (bytes.subarray(0, 2).toString('latin1') === 'PK') return 'model.3mf'
  return /^\s*(#|mtllib|o |g |v )/.test(bytes.subarray(0, 400).toString('latin1')) ? 'model.obj' : 'model.stl'
}

export async function loadPart(path: string): Promise<Part> {
  const bytes = await readNamed(path)
  return readPart(bytes, path === STREAM ? nameFor(bytes) : basename(path), contentKey(bytes))
}

export async function loadProfile(path: string): Promise<ProfileFile> {
  return readProfileFile((await readNamed(path)).toString('utf8'), basename(path))
}

/**
 * A JSON file of which a schema says what may stand in it.
 *
 * @throws InputError naming the first thing that is wrong
 */
export async function readJson<T>(path: string, schema: z.ZodType<T>): Promise<T> {
  const text = (await readNamed(path)).toString('utf8')
  const remedy = 'See docs/command-line.md for what stands in it.'
  let given: unknown
  try {
    given = JSON.parse(text)
  } catch {
    throw new InputError('json-malformed', 'This is no JSON.', path, remedy)
  }
  const parsed = schema.safeParse(given)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new InputError('json-unexpected', issue!.message, `${path}, ${issue!.path.join('.')}`, remedy)
}

export async function readNamed(path: string): Promise<Buffer> {
  try {
    return path === STREAM ? await buffer(process.stdin) : await readFile(path)
  } catch (error) {
    throw unreadable(path, error)
  }
}

export async function writeNamed(path: string, pieces: readonly (string | Uint8Array)[]): Promise<void> {
  if (path === STREAM) {
    for (const piece of pieces) process.stdout.write(piece)
    return
  }
  let file: FileHandle | undefined
  try {
    file = await open(path, 'w')
    for (const piece of pieces) await writeFile(file, piece)
  } catch (error) {
    throw new InputError(
      'file-unwritable',
      `The file cannot be written (${(error as NodeJS.ErrnoException).code}).`,
      path,
      'Check the path.',
    )
  } finally {
    await file?.close()
  }
}

export function unreadable(path: string, error: unknown): InputError {
  const { code } = error as NodeJS.ErrnoException
  const why = code === 'ENOENT' ? 'There is no such file.' : code === 'EISDIR' ? 'This is a folder.' : `The file cannot be read (${code}).`
  return new InputError('file-unreadable', why, path, 'Check the path.')
}
