// The package ships types for its ES build only; the UMD build is the one that Node can import as it is.
declare module 'clipper2-wasm' {
  export type { MainModule, Paths64 } from 'clipper2-wasm/dist/es/clipper2z'
}

declare module 'clipper2-wasm/dist/umd/clipper2z.js' {
  import type { MainModule } from 'clipper2-wasm'

  const createKernel: (options: { wasmBinary: ArrayBuffer | Uint8Array }) => Promise<MainModule>
  export default createKernel
}
