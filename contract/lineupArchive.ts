import { isArchive, unpack } from '@sable/core/formats/unpack'
import { InputError } from '@sable/core/units/errors'
import { strFromU8, strToU8, zip } from 'fflate'
import type { LineupContent } from './lineup'
import { type LineupFile, readLineupFile, writeLineupFile } from './lineupFile'
import { LARGEST_UPLOAD } from './part'
import { SHELF_FILE_VERSION, type Shelf, type ShelfFile, shelfFileSchema } from './shelf'

const LINEUP = 'lineup.json'
const SHELF = 'shelf.json'
const MODEL = 'model/'
/** Most that an archive may unpack to: a model and two short texts. */
const MOST_UNPACKED = LARGEST_UPLOAD + 16 * 2 ** 20

/** A lineup that was carried from elsewhere: what it says, and where they came along, its model and the records that it names. */
export interface CarriedLineup {
  readonly lineup: LineupFile
  readonly model?: { readonly fileName: string; readonly bytes: Uint8Array }
  readonly records?: ShelfFile
}

/** Writes a lineup with its model and the records that it names as one archive, so that it opens anywhere. */
export function writeLineupArchive(
  lineup: LineupContent,
  part: { readonly name: string; readonly contentKey: string; readonly fileName: string },
  model: Uint8Array,
  shelf: Pick<Shelf, 'printers' | 'nozzles' | 'materials' | 'spools'>,
): Promise<Uint8Array> {
  const files = {
    [LINEUP]: strToU8(writeLineupFile(lineup, part)),
    [SHELF]: strToU8(`${JSON.stringify(recordsOf(lineup, shelf), null, 2)}\n`),
    [`${MODEL}${part.fileName.replace(/[\\/]/g, '_')}`]: model,
  }
  return new Promise((resolve, reject) => zip(files, { level: 6 }, (error, bytes) => (error ? reject(error) : resolve(bytes))))
}

/** Reads a lineup, whether it comes alone as JSON or with all that it needs. @throws InputError naming what is wrong, and where */
export function readCarriedLineup(bytes: Uint8Array, fileName: string): CarriedLineup {
  if (!isArchive(bytes)) return { lineup: readLineupFile(strFromU8(bytes), fileName) }
  const files = new Map<string, Uint8Array[]>()
  unpack(bytes, fileName, MOST_UNPACKED, (path) => {
    if (path !== LINEUP && path !== SHELF && !path.startsWith(MODEL)) return undefined
    const pieces: Uint8Array[] = []
    files.set(path, pieces)
    return (piece) => {
      if (piece.length > 0) pieces.push(piece.slice())
    }
  })
  const lineup = files.get(LINEUP)
  if (!lineup) throw new InputError('lineup-missing', 'The archive holds no lineup.', fileName, 'Export the lineup again.')
  const [modelPath] = [...files.keys()].filter((path) => path.startsWith(MODEL))
  const records = files.get(SHELF)
  return {
    lineup: readLineupFile(strFromU8(joined(lineup)), `${fileName}, ${LINEUP}`),
    ...(modelPath === undefined ? {} : { model: { fileName: modelPath.slice(MODEL.length), bytes: joined(files.get(modelPath)!) } }),
    ...(records === undefined ? {} : { records: readRecords(strFromU8(joined(records)), `${fileName}, ${SHELF}`) }),
  }
}

function recordsOf(lineup: LineupContent, shelf: Pick<Shelf, 'printers' | 'nozzles' | 'materials' | 'spools'>): ShelfFile {
  const named = (kind: 'printer' | 'nozzle' | 'material' | 'spool') => new Set(lineup.candidates.map((candidate) => candidate[kind]))
  const spools = shelf.spools.filter(({ key }) => named('spool').has(key))
  const materials = new Set([...named('material'), ...spools.map(({ material }) => material)])
  return shelfFileSchema.parse({
    format: 'sable-lantern/shelf',
    version: SHELF_FILE_VERSION,
    printers: shelf.printers.filter(({ key }) => named('printer').has(key)),
    nozzles: shelf.nozzles.filter(({ key }) => named('nozzle').has(key)),
    materials: shelf.materials.filter(({ key }) => materials.has(key)),
    spools,
  })
}

function readRecords(text: string, where: string): ShelfFile {
  let given: unknown
  try {
    given = JSON.parse(text)
  } catch {
    throw new InputError('records-malformed', 'The records of the lineup are no JSON.', where, 'Export the lineup again.')
  }
  const parsed = shelfFileSchema.safeParse(given)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new InputError('records-malformed', issue!.message, `${where}, ${issue!.path.join('.')}`, 'Export the lineup again.')
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const piece of pieces) {
    whole.set(piece, at)
    at += piece.length
  }
  return whole
}
