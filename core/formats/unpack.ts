import { Unzip, UnzipInflate } from 'fflate'
import { InputError } from '../units/errors'

/** What takes a file of an archive as it comes. */
export type ByteSink = (piece: Uint8Array, isLast: boolean) => void

/** The archive is handed on in pieces of this many bytes: each may unpack to a thousand times as much. */
const PIECE = 1 << 13

/**
 * Unpacks files of a zip archive, piece by piece, and counts what comes out: the size that an archive claims for its files is
 * not believed.
 *
 * @param most bytes that they may unpack to together
 * @param open called with the path of each file, in the archive's order; those that it gives nothing for are passed over
 * @throws InputError when the archive is damaged, or unpacks to more
 */
export function unpack(bytes: Uint8Array, fileName: string, most: number, open: (path: string) => ByteSink | undefined): void {
  if (!hasDirectory(bytes)) throw damaged('its directory is missing', fileName)
  let total = 0
  let unfinished = 0
  try {
    const unzip = new Unzip((file) => {
      const sink = open(file.name)
      if (!sink) return
      unfinished++
      file.ondata = (error, piece, isLast) => {
        if (error) throw error
        total += piece.length
        if (total > most) throw tooLarge(most, fileName)
        sink(piece, isLast)
        if (isLast) unfinished--
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

/** Whether bytes begin as every zip archive does. */
export const isArchive = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4

/** Whether the record that ends every archive is there: what follows it is a comment of at most 64 KB (APPNOTE 6.3.10, §4.3.16). */
function hasDirectory(bytes: Uint8Array): boolean {
  const end = [0x50, 0x4b, 5, 6]
  for (let at = bytes.length - 22; at >= 0 && at >= bytes.length - 22 - 0xffff; at--)
    if (end.every((byte, k) => bytes[at + k] === byte)) return true
  return false
}

const tooLarge = (most: number, fileName: string): InputError =>
  new InputError(
    'archive-unpacks-too-large',
    `The archive unpacks to more than ${most / 1024 / 1024} MB.`,
    fileName,
    'Export a coarser mesh.',
  )

const damaged = (why: string, fileName: string): InputError =>
  new InputError('archive-damaged', `The archive cannot be unpacked (${why}).`, fileName, 'Copy or export the file again.')
