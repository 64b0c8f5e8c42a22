import { writeFileSync } from 'node:fs'
import { kernelSource } from './lib/kernelSource'

/** Writes the solver's kernel anew from its source. */
writeFileSync(new URL('../core/elements/kernel/kernelBytes.ts', import.meta.url), await kernelSource())
