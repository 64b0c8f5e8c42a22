/** Changes a few bytes, cuts, doubles or shuffles pieces of a file, as bad copies and attackers do. @param random numbers in [0, 1) */
export function mutate(seed: Uint8Array, random: () => number): Uint8Array {
  let bytes: Uint8Array = seed.slice()
  const below = (most: number): number => Math.floor(random() * most)
  const changes = 1 + below(4)
  for (let i = 0; i < changes && bytes.length > 0; i++) bytes = kindsOfChange[below(kindsOfChange.length)]!(bytes, below)
  return bytes
}

type Below = (most: number) => number

/** Words that readers of numbers, counts and markup stumble over. */
const words = [
  '-1',
  '0',
  'NaN',
  '1e999',
  '1e9',
  '-0',
  '4294967296',
  '0x10',
  '<',
  '&',
  '"',
  '\u0000',
  '/',
  ' ',
  '\n',
  '{}',
  '[]',
  'null',
  '9'.repeat(30),
]

const kindsOfChange: readonly ((bytes: Uint8Array, below: Below) => Uint8Array)[] = [
  (bytes, below) => {
    bytes[below(bytes.length)] = below(256)
    return bytes
  },
  (bytes, below) => {
    bytes[below(bytes.length)]! ^= 1 << below(8)
    return bytes
  },
  (bytes, below) => bytes.slice(0, below(bytes.length)),
  (bytes, below) => {
    const from = below(bytes.length)
    return spliced(bytes, from, from + below(40), new Uint8Array(0))
  },
  (bytes, below) => {
    const from = below(bytes.length)
    return spliced(bytes, from, from, bytes.slice(from, from + below(200)))
  },
  (bytes, below) => {
    const word = Uint8Array.from(words[below(words.length)]!, (c) => c.charCodeAt(0))
    const at = below(bytes.length)
    return spliced(bytes, at, at + below(4), word)
  },
  (bytes, below) => {
    const word = new DataView(new ArrayBuffer(4))
    word.setUint32(0, [0, 1, 0x7f800000, 0x7fc00000, 0xffffffff][below(5)]!, true)
    const at = below(bytes.length)
    return spliced(bytes, at, at + 4, new Uint8Array(word.buffer))
  },
]

function spliced(bytes: Uint8Array, from: number, to: number, put: Uint8Array): Uint8Array {
  const rest = bytes.subarray(Math.min(to, bytes.length))
  const out = new Uint8Array(from + put.length + rest.length)
  out.set(bytes.subarray(0, from))
  out.set(put, from)
  out.set(rest, from + put.length)
  return out
}
