import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { loadSolidKernel, type SolidKernel } from '@sable/core/trials/solids/solidKernel'

/** Starts the kernel that makes trials' bodies, from the installed package. */
export async function openSolids(): Promise<SolidKernel> {
  return loadSolidKernel(Uint8Array.from(await readFile(createRequire(import.meta.url).resolve('manifold-3d/manifold.wasm'))))
}
