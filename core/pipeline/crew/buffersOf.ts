/** Memory of all arrays in a value that is not shared, to be handed to another thread without a copy. */
export function buffersOf(value: unknown, found = new Set<ArrayBuffer>()): Set<ArrayBuffer> {
  if (ArrayBuffer.isView(value)) {
    if (value.buffer instanceof ArrayBuffer) found.add(value.buffer)
  } else if (Array.isArray(value)) {
    // Long lists hold objects that are all alike and have no arrays of their own.
    if (value.length <= 64) for (const item of value) buffersOf(item, found)
  } else if (typeof value === 'object' && value !== null) {
    for (const member of Object.values(value)) buffersOf(member, found)
  }
  return found
}
