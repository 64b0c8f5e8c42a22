import type { TriangleSoup } from '../mesh/mesh'
import { InputError } from '../units/errors'

/**
 * What a file may hold at most. Each is far beyond what is printed, and keeps reading within a few seconds and a few hundred
 * megabytes, whatever somebody puts into a file. Counted before anything is made of it.
 */
export const readingLimits = {
  triangles: 2_000_000,
  /** Corners of one face of an OBJ file, and characters of one of its lines. */
  faceCorners: 4096,
  lineCharacters: 1 << 18,
  /** Of a 3MF archive: bytes of its model parts once unpacked, how many parts, objects and placements (of items, and of components in each of them). */
  unpackedBytes: 192 * 1024 * 1024,
  modelParts: 1000,
  objects: 100_000,
  placements: 100_000,
  /** Components may stand in components this deep. */
  depth: 32,
  /** Bodies that do not hang together. */
  shells: 20_000,
  /** Notes that are told of one file. */
  notes: 20,
  /** Distance of a corner from the file's origin, and the least and the greatest extent of a part, mm: a part in micrometres or in metres is within. */
  farthest: 1e7,
  smallest: 1e-4,
} as const

export const tooManyTriangles = (fileName: string): InputError =>
  new InputError(
    'too-many-triangles',
    `The model has more than ${readingLimits.triangles.toLocaleString('en')} triangles, the most that can be worked on.`,
    fileName,
    'Reduce the mesh before loading it.',
  )

/** @throws InputError for triangles of which no part can be made: too far out, or without extent */
export function refuseUnworkable({ corners }: TriangleSoup, fileName: string): void {
  const low = [Infinity, Infinity, Infinity]
  const high = [-Infinity, -Infinity, -Infinity]
  for (let i = 0; i < corners.length; ) {
    for (let axis = 0; axis < 3; axis++, i++) {
      const value = corners[i]!
      // Told this way round, what is not a number is refused too.
      if (!(Math.abs(value) <= readingLimits.farthest))
        throw new InputError(
          'model-too-far-out',
          `A corner lies at ${value.toPrecision(3)} mm; ${readingLimits.farthest.toExponential(0).replace('+', '')} mm from the origin is the farthest that can be worked on.`,
          `${fileName}, triangle ${Math.floor((i - axis) / 9) + 1}`,
          'Export the model again, in millimetres and near its origin.',
        )
      if (value < low[axis]!) low[axis] = value
      if (value > high[axis]!) high[axis] = value
    }
  }
  const extents = high.map((value, axis) => value - low[axis]!)
  if (Math.max(...extents) < readingLimits.smallest)
    throw new InputError(
      'model-without-extent',
      'All corners of the model lie in one place.',
      fileName,
      'Export it again; if it is scaled or placed by a transform, look whether that is zero.',
    )
  const flat = extents.indexOf(0)
  if (flat >= 0)
    throw new InputError(
      'model-flat',
      `The model has no thickness along ${'xyz'[flat]}: it is no body.`,
      fileName,
      'Give it a thickness, or export the solid instead of its outline.',
    )
}
