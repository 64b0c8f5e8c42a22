import { type ChildProcess, spawn } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

const root = join(import.meta.dirname, '..')

/** A desk of its own, as `npm start` runs it, with what it takes to end its parts by force. */
export interface Desk {
  readonly address: string
  /** Ends a part as a lack of memory or power would, or sends it another signal. Tells whether there was one to send it to. */
  readonly kill: (part: 'server' | 'database', signal?: NodeJS.Signals) => boolean
  readonly ready: () => Promise<void>
  readonly stop: () => Promise<void>
  readonly said: () => string
}

/** @param data folder of the desk */
export async function openDesk(data: string, port: number): Promise<Desk> {
  const child: ChildProcess = spawn(process.execPath, [join(root, 'scripts/start.mjs'), '--port', String(port)], {
    cwd: root,
    env: { ...process.env, SABLE_DATA: data, SABLE_MOST_RESTARTS: '1000000' },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (piece) => {
      said = `${said}${piece}`.slice(-20_000)
    })
  const address = `http://localhost:${port}`
  const ready = async (): Promise<void> => {
    for (let waited = 0; waited < 120_000; waited += 50) {
      if (child.exitCode !== null) throw new Error(`The desk ended: ${said}`)
      const health = await fetch(`${address}/api/health`).catch(() => undefined)
      if (health?.ok) return
      await wait(50)
    }
    throw new Error(`The desk does not answer: ${said}`)
  }
  const marks = { server: data, database: `--datadir=${join(data, 'mariadb')}` }
  const kill: Desk['kill'] = (part, signal = 'SIGKILL') => {
    const pids = processesWith(marks[part]).filter((pid) => pid !== child.pid)
    for (const pid of pids) process.kill(pid, signal)
    return pids.length > 0
  }
  const stop = async (): Promise<void> => {
    child.kill('SIGINT')
    await new Promise((resolve) => child.once('close', resolve))
  }
  // Another desk may answer at this address: this one says itself when it is ready.
  while (!said.includes('is ready')) {
    if (child.exitCode !== null) throw new Error(`The desk ended: ${said}`)
    await wait(50)
  }
  return { address, kill, ready, stop, said: () => said }
}

/** Processes that have a word among their arguments. */
export function processesWith(word: string): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0').includes(word)
      } catch {
        return false
      }
    })
    .map(Number)
}
