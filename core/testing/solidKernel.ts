import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { loadSolidKernel, type SolidKernel } from '../trials/solids/solidKernel'

/** The kernel that makes trials' bodies, for tests, started once a file. */
export const testSolids: Promise<SolidKernel> = (async () =>
  loadSolidKernel(await readFile(createRequire(import.meta.url).resolve('manifold-3d/manifold.wasm'))))()
