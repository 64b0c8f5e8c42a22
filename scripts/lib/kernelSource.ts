import { readFileSync } from 'node:fs'
import { main } from 'assemblyscript/asc'

/** Where the kernel's source stands. */
const source = new URL('../../core/elements/kernel/assembly/kernel.ts', import.meta.url)

/** The solver's kernel as a module of the core: WebAssembly with 128-bit vectors in base64, so that page, server and command line load it alike. */
export async function kernelSource(): Promise<string> {
  let bytes: Uint8Array | undefined
  const { error, stderr } = await main(
    ['kernel.ts', '-o', 'kernel.wasm', '--runtime', 'stub', '--enable', 'simd', '--importMemory', '-O3', '--noAssert'],
    {
      readFile: (name) => (name === 'kernel.ts' ? readFileSync(source, 'utf8') : null),
      writeFile: (name, contents) => {
        if (name === 'kernel.wasm') bytes = contents as Uint8Array
      },
      listFiles: () => [],
    },
  )
  if (error || !bytes) throw new Error(`The kernel is not made: ${error?.message}\n${stderr.toString()}`)
  return `/** Made from assembly/kernel.ts by \`npm run kernel\`. */\nexport const kernelBytes =\n  '${Buffer.from(bytes).toString('base64')}'\n`
}
