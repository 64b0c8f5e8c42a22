import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { readStl } from '@sable/core/formats/readStl'
import { writeStl } from '@sable/core/formats/writeStl'
import type { Placement } from '@sable/core/mesh/place'
import { repair } from '@sable/core/mesh/repair'
import { weld } from '@sable/core/mesh/weld'
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

/** A hull of 19,200 triangles that flares upwards, 40 mm high: its inside holds up one wide top. */
export function flaringHull(): BenchModel {
  const [rows, spokes] = [120, 80]
  const at = (row: number, spoke: number): [number, number, number] => {
    const turn = (2 * Math.PI * (spoke % spokes)) / spokes
    const flare = 1 + 0.6 * (row / rows) ** 1.5
    return [30 * flare * Math.cos(turn), 14 * flare * Math.sin(turn) * (1 + 0.2 * Math.cos(turn)), (40 * row) / rows]
  }
  const corners: number[] = []
  for (let spoke = 0; spoke < spokes; spoke++) {
    for (let row = 0; row < rows; row++) {
      const [a, b, c, d] = [at(row, spoke), at(row, spoke + 1), at(row + 1, spoke), at(row + 1, spoke + 1)]
      corners.push(...a, ...b, ...d, ...a, ...d, ...c)
    }
    corners.push(0, 0, 0, ...at(0, spoke + 1), ...at(0, spoke), 0, 0, 40, ...at(rows, spoke), ...at(rows, spoke + 1))
  }
  return { name: 'hull', bytes: writeStl(weld(Float64Array.from(corners))), placement: { scale: 1, rotateDeg: [0, 0, 0] } }
}

/** A ball of a million triangles, 60 mm across. */
export function millionTriangles(): BenchModel {
  const [rings, spokes] = [500, 1000]
  const corners = new Float64Array(rings * spokes * 2 * 9)
  const point = (ring: number, spoke: number): [number, number, number] => {
    const [polar, turn] = [(Math.PI * ring) / rings, (2 * Math.PI * (spoke % spokes)) / spokes]
    return [30 * Math.sin(polar) * Math.cos(turn), 30 * Math.sin(polar) * Math.sin(turn), -30 * Math.cos(polar)]
  }
  let at = 0
  for (let ring = 0; ring < rings; ring++) {
    for (let spoke = 0; spoke < spokes; spoke++) {
      const [a, b, c, d] = [point(ring, spoke), point(ring, spoke + 1), point(ring + 1, spoke + 1), point(ring + 1, spoke)]
      for (const corner of [a, b, c, a, c, d]) {
        corners.set(corner, at)
        at += 3
      }
    }
  }
  return { name: 'million', bytes: writeStl(weld(corners)), placement: { scale: 1, rotateDeg: [0, 0, 0] } }
}
