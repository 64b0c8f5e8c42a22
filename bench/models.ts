import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { readStl } from '@sable/core/formats/readStl'
import { writeStl } from '@sable/core/formats/writeStl'
import type { Placement } from '@sable/core/mesh/place'
import { repair } from '@sable/core/mesh/repair'
import { shade } from '@sable/demo/parts/shade'

export interface BenchModel {
  readonly name: string
  readonly bytes: Uint8Array
  readonly placement: Placement
}

/** Height to which the scan is scaled, mm. */
const SCAN_HEIGHT = 80

/** The demo's shade, and the scan of 69,451 triangles from the MIT-licensed package stl-models, stood upright. */
export function benchModels(): BenchModel[] {
  const folder = dirname(createRequire(import.meta.url).resolve('stl-models/package.json'))
  const scan = readFileSync(join(folder, 'objects/bunny.bin.stl'))
  const { report } = repair(readStl(scan))
  // The scan's up is y.
  const scale = SCAN_HEIGHT / report.sizeMm[1]
  return [
    { name: 'shade', bytes: writeStl(shade()), placement: { scale: 1, rotateDeg: [0, 0, 0] } },
    { name: 'scan', bytes: scan, placement: { scale, rotateDeg: [90, 0, 0] } },
  ]
}
