import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { loadPolygonKernel, type PolygonKernel } from '../geometry/polygon'

/** The polygon kernel for tests, started once a file. */
export const testKernel: Promise<PolygonKernel> = (async () => {
  const script = createRequire(import.meta.url).resolve('clipper2-wasm')
  return loadPolygonKernel(await readFile(join(dirname(script), 'clipper2z.wasm')))
})()
