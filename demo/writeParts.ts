import { mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { writeStl } from '@sable/core/formats/writeStl'
import { demoParts } from './scenario'

/** Writes the demo parts as STL files: `npm run parts -- DIR`. */
const folder = process.argv[2] ?? 'demo/stl'
await mkdir(folder, { recursive: true })
for (const part of demoParts) {
  const path = join(folder, `${part.key}.stl`)
  await writeFile(path, writeStl(part.make(), part.name))
  process.stdout.write(`${path}\n`)
}
