import { DecodeUTF8, Unzip, UnzipInflate } from 'fflate'
import { InputError } from '../errors'
import { readingLimits } from './readingLimits'

/** What takes the text of a model part as it comes. */
export interface TextSink {
  write(text: string): void
  end(): void
}

/** The archive is handed on in pieces of this many bytes: each may unpack to a thousand times as much. */
const PIECE = 1 << 13

/**
 * Unpacks the model parts of a 3MF archive, piece by piece, and counts what comes out: the size that an archive claims for
 * its files is not believed.
 *
 * @param open called with the path of each model part, in the archive's order
 * @throws InputError when the archive is damaged, or unpacks to more than `readingLimits.unpackedBytes`
 */
export function unpackModelParts(bytes: Uint8Array, fileName: string, open: (path: string) => TextSink): void {
  if (!hasDirectory(bytes)) throw damaged('its directory is missing', fileName)
  let total = 0
  let unfinished = 0
  try {
    const unzip = new Unzip((file) => {
      if (!/\.model$/i.test(file.name)) return
      const sink = open(file.name)
      const text = new DecodeUTF8((piece) => sink.write(piece))
      unfinished++
      file.ondata = (error, piece, isLast) => {
        if (error) throw error
        total += piece.length
        if (total > readingLimits.unpackedBytes) throw tooLarge(fileName)
        text.push(piece, isLast)
        if (!isLast) return
        sink.end()
        unfinished--
      }
      file.start()
    })
    unzip.register(UnzipInflate)
    for (let at = 0; at < bytes.length; at += PIECE) unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length)
  } catch (error) {
    if (error instanceof InputError) throw error
    throw damaged((error as Error).message, fileName)
  }
  if (unfinished > 0) throw damaged('it ends within a file', fileName)
}

/** Whether the record that ends every archive is there: what follows it is a comment of at most 64 KB (APPNOTE 6.3.10, §4.3.16). */
function hasDirectory(bytes: Uint8Array): boolean {
  const end = [0x50, 0x4b, 5, 6]
  for (let at = bytes.length - 22; at >= 0 && at >= bytes.length - 22 - 0xffff; at--)
    if (end.every((byte, k) => bytes[at + k] === byte)) return true
  return false
}

const tooLarge = (fileName: string): InputError =>
  new InputError(
    '3mf-unpacks-too-large',
    `The archive unpacks to more than ${readingLimits.unpackedBytes / 1024 / 1024} MB.`,
    fileName,
    'Export a coarser mesh.',
  )

const damaged = (why: string, fileName: string): InputError =>
  new InputError('3mf-damaged', `The archive cannot be unpacked (${why}).`, fileName, 'Copy or export the file again.')
