import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { loadPolygonKernel, type PolygonKernel } from '@sable/core/geometry/polygon'

/** Starts the polygon kernel from the installed package. */
export async function openKernel(): Promise<PolygonKernel> {
  const script = createRequire(import.meta.url).resolve('clipper2-wasm')
  return loadPolygonKernel(await readFile(join(dirname(script), 'clipper2z.wasm')))
}
