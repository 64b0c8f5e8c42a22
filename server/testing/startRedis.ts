import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { Redis } from 'ioredis'

/** A Redis of its own on loopback, installed if it is missing, which keeps nothing and goes with the test. */
export async function startRedis(): Promise<{ readonly url: string; readonly stop: () => Promise<void> }> {
  // @ts-expect-error the scripts are plain JavaScript, so that they run before any package is there
  const { installDebian } = await import('../../scripts/lib/installDebian.mjs')
  // @ts-expect-error
  const { holdPort } = await import('../../scripts/lib/ports.mjs')
  const program: string = installDebian('redis-server', ['/usr/bin/redis-server'])
  const folder = mkdtempSync(join(tmpdir(), 'sable-redis-'))
  let held: { port: number; release: () => Promise<void> } | undefined
  for (let port = 16_850; held === undefined; port++) held = await holdPort(port)
  await held.release()
  const child = spawn(program, ['--port', String(held.port), '--bind', '127.0.0.1', '--save', '', '--appendonly', 'no', '--dir', folder], {
    stdio: 'ignore',
  })
  const url = `redis://127.0.0.1:${held.port}`
  const probe = new Redis(url, { maxRetriesPerRequest: null, retryStrategy: () => 50 })
  probe.on('error', () => {})
  await probe.ping()
  probe.disconnect()
  return {
    url,
    async stop() {
      child.kill('SIGTERM')
      if (child.exitCode === null) await Promise.race([once(child, 'exit'), wait(5000)])
      rmSync(folder, { recursive: true, force: true })
    },
  }
}
