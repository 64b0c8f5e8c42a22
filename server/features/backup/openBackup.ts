import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { type BackupManifest, backupManifestSchema } from '@sable/contract/backup'
import { InputError } from '@sable/core/units/errors'
import { type Entry, open as openZip, type ZipFile } from 'yauzl'
import { stepNames } from '../../database/migrations/migrate'
import { MANIFEST } from './tables'

/** A file in a backup is no larger than this, bytes: a model, or the rows of a table. */
const LARGEST_FILE = 2 ** 30
const LARGEST_MANIFEST = 2 ** 26

/** A backup whose every file was found as its manifest says. */
export interface Backup {
  readonly manifest: BackupManifest
  /** Reads one of its files. @throws InputError for one that is not there, or is not what it was */
  readonly read: (path: string) => Promise<Buffer>
  readonly close: () => void
}

/** Opens a backup and checks all of it. @throws InputError naming what is wrong, before anything is touched */
export async function openBackup(path: string): Promise<Backup> {
  const zip = await open(path)
  try {
    const entries = await entriesOf(zip)
    const readEntry = async (name: string, most: number): Promise<Buffer> => {
      const entry = entries.get(name)
      if (!entry) throw damaged(`${name} is missing`, path)
      const pieces: Buffer[] = []
      let size = 0
      for await (const piece of await openStream(zip, entry)) {
        size += (piece as Buffer).length
        if (size > most) throw damaged(`${name} is larger than it may be`, path)
        pieces.push(piece as Buffer)
      }
      return Buffer.concat(pieces)
    }
    const manifest = manifestIn(await readEntry(MANIFEST, LARGEST_MANIFEST), path)
    const known = new Map(manifest.files.map((file) => [file.path, file]))
    const read = async (name: string): Promise<Buffer> => {
      const told = known.get(name)
      if (!told) throw damaged(`${name} is not in its manifest`, path)
      const bytes = await readEntry(name, Math.min(told.bytes, LARGEST_FILE))
      if (bytes.length !== told.bytes || createHash('sha256').update(bytes).digest('hex') !== told.sha256)
        throw damaged(`${name} is not what was written`, path)
      return bytes
    }
    for (const name of known.keys()) await read(name)
    return { manifest, read, close: () => zip.close() }
  } catch (error) {
    zip.close()
    throw error instanceof InputError ? error : damaged((error as Error).message, path)
  }
}

const openFile = promisify<string, { lazyEntries: boolean; autoClose: boolean }, ZipFile>(openZip as never)

async function open(path: string): Promise<ZipFile> {
  try {
    return await openFile(path, { lazyEntries: true, autoClose: false })
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException
    if (code === 'ENOENT') throw new InputError('backup-missing', 'There is no such file.', path, 'Check the path.')
    throw damaged(message, path)
  }
}

function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>()
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry)
      zip.readEntry()
    })
    zip.on('end', () => resolve(entries))
    zip.on('error', reject)
    zip.readEntry()
  })
}

const openStream = (zip: ZipFile, entry: Entry): Promise<NodeJS.ReadableStream> =>
  new Promise((resolve, reject) => zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))))

function manifestIn(bytes: Buffer, path: string): BackupManifest {
  let given: unknown
  try {
    given = JSON.parse(bytes.toString('utf8'))
  } catch {
    throw damaged('its manifest is no JSON', path)
  }
  const parsed = backupManifestSchema.safeParse(given)
  if (!parsed.success) throw damaged(`its manifest is malformed at ${parsed.error.issues[0]?.path.join('.')}`, path)
  const newer = parsed.data.steps.filter((step) => !stepNames.includes(step))
  if (newer.length > 0)
    throw new InputError(
      'backup-newer',
      `The backup was written by a newer version of Sable Lantern (it has ${newer.join(', ')}).`,
      path,
      'Restore it with that version.',
    )
  return parsed.data
}

const damaged = (why: string, path: string): InputError =>
  new InputError('backup-damaged', `This is no whole backup (${why}).`, path, 'Use another copy of it; nothing on the desk was changed.')
