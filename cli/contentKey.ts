import { createHash } from 'node:crypto'

/** SHA-256 of a file's bytes, in hexadecimal: equal content has an equal key, whatever its name. */
export const contentKey = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')
