import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { demoLineups } from '@sable/demo/lineups'
import { expect, test } from '../desk'

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
const start = (data: string, ...options: string[]): Desk => startOn(data, PORT, ...options)

function startOn(data: string, port: number, ...options: string[]): Desk {
  const child = spawn('npm', ['start', '--', '--port', String(port), ...options], {
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
      expect.poll(() => text, { timeout: 240_000 }).toMatch(wanted),
      ended.then((code) => {
        if (!wanted.test(text)) throw new Error(`ended with ${code}: ${text}`)
      }),
    ])
  }
  return { said: () => text, until, ended, interrupt: () => process.kill(-(child.pid as number), 'SIGINT') }
}

/** Where a desk's database listens for programs of this machine; see scripts/lib/paths.mjs. */
const socketOf = (data: string): string => join(tmpdir(), `sable-${createHash('sha256').update(data).digest('hex').slice(0, 12)}.sock`)

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
  const before = await lineups()
  expect(running(data)).toBe(true)
  const beside = start(data)
  expect(await beside.ended).not.toBe(0)
  expect(beside.said()).toMatch(/already running: http:\/\/localhost:4960/)
  first.interrupt()
  await first.ended
  await expect.poll(() => running(data)).toBe(false)

  const second = start(data)
  await second.until(/ready/)
  expect(await lineups()).toEqual(before)
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
  expect(await lineups()).toHaveLength(demoLineups.length)
  second.interrupt()
  await second.ended
})

test('a half-made data directory is removed and made anew, and a pid that belongs to something else is not believed', async () => {
  mkdirSync(join(data, 'mariadb'))
  writeFileSync(join(data, 'mariadb/ibdata1'), 'cut short')
  mkdirSync(join(data, 'mariadb.making'))
  // This very process runs, and is no start of a desk.
  writeFileSync(join(data, 'start.json'), JSON.stringify({ pid: process.pid, port: PORT, identity: 'another boot 1' }))
  const desk = start(data)
  await desk.until(/ready/)
  expect(desk.said()).toMatch(/half-made data directory is removed/)
  expect(readdirSync(data).filter((name) => /half-made|making/.test(name))).toEqual([])
  desk.interrupt()
  await desk.ended
})

test('two desks whose folders begin alike do not end each other, and each has a database port far from the other’s page', async () => {
  const neighbour = `${data}3`
  const first = start(data)
  await first.until(/ready/)
  expect(first.said()).toMatch(/database listens on port 14960/)
  const second = startOn(neighbour, PORT + 1)
  await second.until(/ready: http:\/\/localhost:4961/)
  expect(await lineups()).toHaveLength(demoLineups.length)
  // The first is started again while the second runs.
  first.interrupt()
  await first.ended
  const again = start(data)
  await again.until(/ready/)
  expect((await fetch('http://localhost:4961/api/health')).status).toBe(200)
  for (const desk of [again, second]) {
    desk.interrupt()
    await desk.ended
  }
  rmSync(neighbour, { recursive: true, force: true })
})

test('an emptied secret is made anew, and a database of a newer version is left alone with a sentence', async () => {
  const first = start(data)
  await first.until(/ready/)
  const before = await lineups()
  first.interrupt()
  await first.ended
  writeFileSync(join(data, 'mariadb-secret'), '')
  const second = start(data)
  await second.until(/ready/)
  expect(await lineups()).toEqual(before)
  expect(readFileSync(join(data, 'mariadb-secret'), 'utf8')).toMatch(/^[0-9a-f]{48}$/)
  const sql = (text: string) =>
    spawnSync('mariadb', [
      '--no-defaults',
      '-uroot',
      `-p${readFileSync(join(data, 'mariadb-secret'), 'utf8')}`,
      `-S${socketOf(data)}`,
      'sable',
      '-e',
      text,
    ])
  expect(sql("INSERT INTO SequelizeMeta VALUES ('99-from-the-future')").status).toBe(0)
  second.interrupt()
  await second.ended
  const third = start(data)
  expect(await third.ended).not.toBe(0)
  expect(third.said()).toMatch(/written by a newer version of Sable Lantern \(it has 99-from-the-future\)\. Nothing was changed/)
  expect(third.said()).not.toContain('ready')
  await expect.poll(() => running(data)).toBe(false)
})

test('a private desk opens with the address that was printed and with nothing else', async ({ browser }) => {
  const desk = start(data, '--private')
  await desk.until(/token=[0-9a-f]{32}/)
  expect((await fetch(`http://localhost:${PORT}/api/lineups`)).status).toBe(401)
  const page = await browser.newPage()
  await page.goto(`http://localhost:${PORT}/`)
  await expect(page.getByText('This desk is private')).toBeVisible()
  await page.goto(/http:\S+token=[0-9a-f]{32}/.exec(desk.said())![0])
  await expect(page.getByText('everyday').first()).toBeVisible()
  expect(page.url()).not.toContain('token')
  await page.close()
  desk.interrupt()
  await desk.ended
})

test('a folder that cannot be written is told in a sentence', async () => {
  const desk = start('/sys/sable-desk')
  expect(await desk.ended).not.toBe(0)
  expect(desk.said()).toMatch(/The desk's folder cannot be used: \/sys\/sable-desk cannot be written \(E[A-Z]+\)\. Set SABLE_DATA/)
  expect(desk.said()).not.toMatch(/\n\s+at .*\.mjs/)
})

test('a taken port is explained with the command that helps', async () => {
  const other = createServer().listen(PORT, '127.0.0.1')
  const desk = start(data)
  expect(await desk.ended).not.toBe(0)
  expect(desk.said()).toMatch(/Port 4960 is taken by another program\. Choose another one: npm start -- --port 4970/)
  other.close()
  const database = createServer().listen(PORT + 20, '127.0.0.1')
  const second = start(data, '--database-port', String(PORT + 20))
  expect(await second.ended).not.toBe(0)
  expect(second.said()).toMatch(/Two ports are needed, 4960 for the page and 4980 for the database, and the second is taken/)
  database.close()
  const wrong = start(data, '--port', '80')
  expect(await wrong.ended).not.toBe(0)
  expect(wrong.said()).toMatch(/whole number from 1024 to 65000/)
})
