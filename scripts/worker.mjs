import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { build } from './build.mjs'
import { installPackages } from './lib/installPackages.mjs'
import { root } from './lib/paths.mjs'
import { refuse } from './lib/say.mjs'

/** A worker for the jobs of desks that were started with the same SABLE_QUEUE. */
if (!process.env.SABLE_QUEUE) refuse('Say where the queue is: SABLE_QUEUE=redis://127.0.0.1:6379 npm run worker')
installPackages()
await build(['server'])
const child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist/server/app/worker.js')], { stdio: 'inherit' })
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
child.on('exit', (code) => process.exit(code ?? 1))
