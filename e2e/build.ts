import { spawnSync } from 'node:child_process'
import { join } from 'node:path'

/** Builds once what is tested, before desks that start beside each other would each do it. */
export default function build(): void {
  const { status } = spawnSync(process.execPath, [join(import.meta.dirname, '../scripts/build.mjs')], { stdio: 'inherit' })
  if (status !== 0) throw new Error('What is to be tested could not be built; what the build said stands above.')
}
