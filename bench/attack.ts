import { once } from 'node:events'
import { createReadStream, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { request as httpRequest, type IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { Worker } from 'node:worker_threads'
import { binaryStl, largeHostileModels } from '@sable/core/testing/hostileFiles'
import { openDesk, processesWith } from '@sable/soak/desk'

/** What files that mean harm, and many good ones at once, cost a running desk: seconds, memory, and how late others are answered meanwhile. */
const LOOK_MS = 25
const data = mkdtempSync(join(tmpdir(), 'sable-attack-'))
const desk = await openDesk(data, 4986)

/** Memory of the server and of what reads for it, bytes. */
function memory(): number {
  const pids = processesWith(data).filter((pid) => commandOf(pid).includes('dist/server/main.js'))
  const readers = processesWith(join(import.meta.dirname, '../dist/server/features/parts/readPartProcess.js'))
  return [...pids, ...readers].reduce((sum, pid) => sum + residentOf(pid), 0)
}
const commandOf = (pid: number): string => fileOr(`/proc/${pid}/cmdline`)
const residentOf = (pid: number): number => Number(fileOr(`/proc/${pid}/statm`).split(' ')[1] ?? 0) * 4096
function fileOr(path: string): string {
  try {
    return readFileSync(path, 'utf8')
  } catch {
    return ''
  }
}

/** Asks again and again how a server is; told to end, it says how late the latest answer was, ms. */
const ASKS = `
const { parentPort, workerData } = require('node:worker_threads')
let [latest, over] = [0, false]
parentPort.on('message', () => { over = true })
;(async () => {
  while (!over) {
    const from = performance.now()
    await fetch(workerData.address).then((answer) => answer.text())
    latest = Math.max(latest, performance.now() - from)
    await new Promise((resolve) => setTimeout(resolve, workerData.pause))
  }
  parentPort.postMessage(latest)
  process.exit()
})()
`

interface Measured {
  readonly seconds: number
  readonly peakMb: number
  readonly healthMs: number
  readonly statuses: readonly number[]
}

/** Sends a file as it is read, as a browser does. */
async function send(path: string, fileName: string): Promise<number> {
  const request = httpRequest(`${desk.address}/api/parts?fileName=${fileName}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', 'Content-Length': statSync(path).size },
  })
  createReadStream(path).pipe(request)
  const [answer] = (await once(request, 'response')) as [IncomingMessage]
  answer.resume()
  await once(answer, 'end')
  return answer.statusCode ?? 0
}

/** Uploads files at once, and meanwhile asks again and again how the server is. */
async function upload(files: readonly { readonly fileName: string; readonly bytes: Uint8Array }[]): Promise<Measured> {
  let [peak, over] = [0, false]
  const watch = (async () => {
    while (!over) {
      peak = Math.max(peak, memory())
      await wait(LOOK_MS)
    }
  })()
  // In a thread of its own, which what this one sends does not hold up.
  const asks = new Worker(ASKS, { eval: true, workerData: { address: `${desk.address}/api/health`, pause: LOOK_MS } })
  const from = performance.now()
  const statuses = await Promise.all(
    files.map(async ({ fileName, bytes }) => {
      const path = join(data, `bench-${fileName}`)
      writeFileSync(path, bytes)
      return send(path, fileName)
    }),
  )
  const seconds = (performance.now() - from) / 1000
  over = true
  await watch
  asks.postMessage('end')
  const [healthMs] = (await once(asks, 'message')) as [number]
  return { seconds, peakMb: peak / 2 ** 20, healthMs, statuses }
}

/** A part of many facets, 60 MB as binary STL: a wavy field closed by its edges to a point below. */
function field(seed: number): Uint8Array {
  const side = 793
  const z = (x: number, y: number): number => 20 + Math.sin(x / 9 + seed) * Math.cos(y / 7)
  const point = (i: number, j: number): number[] => [i / 8, j / 8, z(i / 8, j / 8)]
  return binaryStl(2 * side * side, (t, out) => {
    const cell = t >> 1
    const [i, j] = [cell % side, Math.floor(cell / side)]
    out.set(
      (t & 1) === 0
        ? [point(i, j), point(i + 1, j), point(i + 1, j + 1)].flat()
        : [point(i, j), point(i + 1, j + 1), point(i, j + 1)].flat(),
    )
  })
}

/** Lets go of connections that the server closed while a file was being made. */
const settle = (): Promise<void> => wait(100)

const round = (value: number): number => Number(value.toPrecision(3))
let baseline = 0
function print(what: string, { seconds, peakMb, healthMs, statuses }: Measured): void {
  baseline ||= seconds
  process.stdout.write(
    `${JSON.stringify({ figure: `attack: ${what}`, seconds: round(seconds), ratio: round(seconds / baseline), peakMb: round(peakMb), healthMs: round(healthMs), statuses: [...new Set(statuses)] })}\n`,
  )
}

print('an ordinary file of 60 MB, the baseline', await upload([{ fileName: 'field.stl', bytes: field(0) }]))
for (const { what, fileName, make } of largeHostileModels) {
  const bytes = make()
  await settle()
  print(what, await upload([{ fileName, bytes }]))
}
const ten = [...Array(10).keys()].map((i) => ({ fileName: `field-${i}.stl`, bytes: field(i + 1) }))
await settle()
print('ten ordinary files of 60 MB at once', await upload(ten))
await desk.stop()
rmSync(data, { recursive: true, force: true })
