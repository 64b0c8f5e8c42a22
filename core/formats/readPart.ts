import { repair } from '../mesh/repair'
import type { Part } from '../predict'
import { readStl } from './readStl'

/**
 * Reads a model file into a part: a clean mesh and what is known about it.
 *
 * @param key names the content, equal for equal bytes; hosts take the SHA-256 of the file, which each computes natively
 * @throws InputError when the file is no readable model
 */
export function readPart(bytes: Uint8Array, fileName: string, key: string): Part {
  return { key, ...repair(readStl(bytes, fileName)) }
}
