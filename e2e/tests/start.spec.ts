import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'

const root = join(import.meta.dirname, '../..')
const PORT = 4960

interface Desk {
  said: () => string
  until: (text: RegExp) => Promise<void>
  ended: Promise<number | null>
  /** What a terminal does on Ctrl-C: the signal goes to npm and to all that it has started. */
  interrupt: () => void
}

/** `npm start` on a desk of its own. */
function start(data: string, ...options: string[]): Desk {
  const child = spawn('npm', ['start', '--', '--port', String(PORT), ...options], {
    cwd: root,
    env: { ...process.env, SABLE_DATA: data },
    detached: true,
  })
  let text = ''
  child.stdout?.on('data', (chunk) => {
    text += chunk
  })
  child.stderr?.on('data', (chunk) => {
    text += chunk
  })
  const ended = new Promise<number | null>((resolve) => child.on('close', (code) => resolve(code)))
  const until = async (wanted: RegExp): Promise<void> => {
    await Promise.race([
      expect.poll(() => text, { timeout: 110_000 }).toMatch(wanted),
      ended.then((code) => {
        if (!wanted.test(text)) throw new Error(`ended with ${code}: ${text}`)
      }),
    ])
  }
  return { said: () => text, until, ended, interrupt: () => process.kill(-(child.pid as number), 'SIGINT') }
}

const lineups = async (): Promise<{ id: string; name: string }[]> =>
  (await fetch(`http://localhost:${PORT}/api/lineups`)).json() as Promise<{ id: string; name: string }[]>
const running = (data: string): boolean => spawnSync('pgrep', ['-f', `datadir=${data}`]).status === 0

let data: string
test.beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'sable-start-'))
})
test.afterEach(() => {
  // A test that failed half-way must not leave its desk to the next one.
  spawnSync('pkill', ['-KILL', '-f', `start.mjs --port ${PORT}`])
  spawnSync('pkill', ['-KILL', '-f', data])
  rmSync(data, { recursive: true, force: true })
})

test('one Ctrl-C ends server and database; a second start finds everything, a second one beside it is told where the first is', async () => {
  const first = start(data)
  await first.until(/ready: http:\/\/localhost:4960/)
  const [demo] = await lineups()
  expect(running(data)).toBe(true)
  const beside = start(data)
  expect(await beside.ended).not.toBe(0)
  expect(beside.said()).toMatch(/already running: http:\/\/localhost:4960/)
  first.interrupt()
  await first.ended
  await expect.poll(() => running(data)).toBe(false)

  const second = start(data)
  await second.until(/ready/)
  expect(await lineups()).toEqual([demo])
  second.interrupt()
  await second.ended
  await expect.poll(() => running(data)).toBe(false)
})

test('a desk whose start was killed, with server and database left over, is taken over', async () => {
  const first = start(data)
  await first.until(/ready/)
  spawnSync('pkill', ['-KILL', '-f', `start.mjs --port ${PORT}`])
  await first.ended
  expect(running(data)).toBe(true)
  const second = start(data, '--fresh-demo')
  await second.until(/ready/)
  expect(await lineups()).toHaveLength(1)
  second.interrupt()
  await second.ended
})

test('a half-made data directory is moved aside, a stale pid is passed over', async () => {
  mkdirSync(join(data, 'mariadb'))
  writeFileSync(join(data, 'mariadb/ibdata1'), 'cut short')
  writeFileSync(join(data, 'start.json'), JSON.stringify({ pid: 999_999_9, port: PORT }))
  const desk = start(data)
  await desk.until(/ready/)
  expect(desk.said()).toMatch(/half-made data directory was moved to/)
  expect(readdirSync(data).filter((name) => name.includes('half-made'))).toHaveLength(1)
  desk.interrupt()
  await desk.ended
})

test('a taken port is explained with the command that helps', async () => {
  const other = createServer().listen(PORT, '127.0.0.1')
  const desk = start(data)
  expect(await desk.ended).not.toBe(0)
  expect(desk.said()).toMatch(/Port 4960 is taken by another program\. Choose another one: npm start -- --port 4970/)
  other.close()
  const wrong = start(data, '--port', '80')
  expect(await wrong.ended).not.toBe(0)
  expect(wrong.said()).toMatch(/whole number from 1024 to 65000/)
})
