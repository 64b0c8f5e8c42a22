const OTHER = '?'.charCodeAt(0)

/**
 * A text file's bytes, one a character, whatever Unicode encoding its first bytes tell; anything else as it is. Editors put a
 * byte-order mark before text, which is none of it. Characters beyond 127, as in names, are not told apart in UTF-16.
 */
export function plainText(bytes: Uint8Array): Uint8Array {
  const [a, b, c] = bytes
  if (a === 0xef && b === 0xbb && c === 0xbf) return bytes.subarray(3)
  if (a === 0xff && b === 0xfe) return fromPairs(bytes, 0)
  if (a === 0xfe && b === 0xff) return fromPairs(bytes, 1)
  return bytes
}

/** @param low which byte of a pair is the lower one */
const fromPairs = (bytes: Uint8Array, low: 0 | 1): Uint8Array =>
  Uint8Array.from({ length: (bytes.length >> 1) - 1 }, (_, i) => (bytes[2 * i + 3 - low] === 0 ? bytes[2 * i + 2 + low]! : OTHER))
