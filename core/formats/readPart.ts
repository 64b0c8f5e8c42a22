import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex } from '@noble/hashes/utils.js'
import { repair } from '../mesh/repair'
import type { Part } from '../predict'
import { readStl } from './readStl'

/** Reads a model file into a part: clean mesh, report, and a key that is the hash of the file's bytes. @throws InputError */
export function readPart(bytes: Uint8Array, fileName: string, key = contentKey(bytes)): Part {
  return { key, ...repair(readStl(bytes, fileName)) }
}

/** SHA-256 of a file's bytes, in hexadecimal: equal content has an equal key, whatever its name. */
export const contentKey = (bytes: Uint8Array): string => bytesToHex(sha256(bytes))
