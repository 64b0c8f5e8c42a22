import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { root } from './lib/paths.mjs'
import { say } from './lib/say.mjs'

const sources = {
  bench: ['core', 'demo', 'cli', 'bench'],
  cli: ['core', 'standins', 'cli'],
  server: ['core', 'contract', 'demo', 'standins', 'server'],
  standins: ['standins'],
  web: ['core', 'contract', 'handbook', 'web'],
}

/**
 * Builds what has changed since the last build: the command line, the server, the interface.
 *
 * @param {('bench' | 'cli' | 'server' | 'standins' | 'web')[]} targets
 */
export async function build(targets = ['cli', 'server', 'standins', 'web']) {
  for (const target of targets) {
    const stamp = join(root, 'dist', target, '.stamp')
    const now = fingerprint(sources[target])
    if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) continue
    if (target === 'web') await buildWeb()
    else await buildNode(target)
    writeFileSync(stamp, now)
  }
}

async function buildNode(target) {
  const { build: bundle } = await import('esbuild')
  const threads = {
    server: [
      'server/features/parts/readPartProcess.ts',
      'server/features/backup/main.ts',
      'server/app/unitThread.ts',
      'server/app/worker.ts',
    ],
    bench: ['bench/helper.ts'],
  }
  const entryPoints = [`${target}/main.ts`, ...(threads[target] ?? [])]
  await bundle({
    absWorkingDir: root,
    entryPoints,
    outdir: `dist/${target}`,
    outbase: target,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    // Packages stay where npm put them; only the project's own rooms are bundled.
    plugins: [
      {
        name: 'packages-outside',
        setup: (b) =>
          b.onResolve({ filter: /^[^./]/ }, ({ path }) =>
            path.startsWith('@sable/') || path.startsWith('/') ? null : { path, external: true },
          ),
      },
    ],
  })
}

async function buildWeb() {
  say('Building the interface …')
  const { build: bundle } = await import('vite')
  // The bundler makes this process one of production; what is started from it afterwards, tests above all, must not inherit that.
  const { NODE_ENV } = process.env
  await bundle({ root: join(root, 'web'), logLevel: 'warn' })
  if (NODE_ENV === undefined) delete process.env.NODE_ENV
  else process.env.NODE_ENV = NODE_ENV
}

/** Changes when a source file is added, removed or touched. */
function fingerprint(folders) {
  const hash = createHash('sha256')
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (entry.name === 'node_modules' || entry.name.endsWith('.tsbuildinfo')) continue
      const path = join(folder, entry.name)
      if (entry.isDirectory()) visit(path)
      else if (!/\.test\.tsx?$/.test(entry.name)) {
        const { size, mtimeMs } = statSync(path)
        hash.update(`${path} ${size} ${mtimeMs}\n`)
      }
    }
  }
  for (const folder of folders) visit(join(root, folder))
  hash.update(readFileSync(join(root, 'package-lock.json')))
  hash.update(readFileSync(fileURLToPath(import.meta.url)))
  return hash.digest('hex')
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const named = process.argv.slice(2)
  await build(named.length > 0 ? named : undefined)
}
