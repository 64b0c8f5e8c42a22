import type { TriangleSoup } from '../mesh/mesh'
import type { Part } from '../mesh/part'
import { repair } from '../mesh/repair'
import { InputError } from '../units/errors'
import { plainText } from './plainText'
import { read3mf } from './read3mf'
import { readingLimits, refuseUnworkable } from './readingLimits'
import { readObj } from './readObj'
import { readStl } from './readStl'
import { isArchive } from './unpack'

/**
 * Reads a model file into a part: a clean mesh and what is known about it. An archive is told by how it begins, the rest
 * by the file's name; what is neither is read as STL, which refuses what it is not.
 *
 * @param key names the content, equal for equal bytes; hosts take the SHA-256 of the file, which each computes natively
 * @throws InputError when the file is no readable model, beyond `readingLimits`, or without a single solid triangle
 */
export function readPart(bytes: Uint8Array, fileName: string, key: string): Part {
  const soup = readTriangles(bytes, fileName)
  refuseUnworkable(soup, fileName)
  const { report, ...part } = repair(soup, { name: fileName, mostShells: readingLimits.shells })
  if (report.triangles === 0 || !(report.areaMm2 > 0))
    throw new InputError(
      'model-without-triangles',
      'Not one triangle of the model has an area.',
      fileName,
      'Export the part as a solid body and load it again.',
    )
  return { key, ...part, report: { ...report, notes: shortened(report.notes) } }
}

function readTriangles(bytes: Uint8Array, fileName: string): TriangleSoup {
  if (isArchive(bytes) || /\.3mf$/i.test(fileName)) return read3mf(bytes, fileName)
  const text = plainText(bytes)
  if (/\.obj$/i.test(fileName)) return readObj(text, fileName)
  // The header of a binary file may begin with any bytes.
  return readStl(isSolidText(text) ? text : bytes, fileName)
}

/** Whether it begins as STL in words does. */
const isSolidText = (bytes: Uint8Array): boolean => /^\s*solid\b/i.test(String.fromCharCode(...bytes.subarray(0, 80)))

function shortened(notes: readonly string[]): readonly string[] {
  const left = notes.length - readingLimits.notes
  return left > 0
    ? [...notes.slice(0, readingLimits.notes), `There is more of this kind: ${left.toLocaleString('en')} notes are not shown.`]
    : notes
}
