import { once } from 'node:events'
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { type AddressInfo, connect, type Server } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { writeStl } from '@sable/core/formats/writeStl'
import { largeHostileModels, smallHostileModels } from '@sable/core/testing/hostileFiles'
import { blockMesh } from '@sable/core/testing/solids'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'
import { readInProcess, readingBounds } from './readInProcess'
import { receiveUpload } from './receiveUpload'

/** The very process that the server starts, run from its source. */
const READER = fileURLToPath(new URL('./readPartProcess.ts', import.meta.url))
const FROM_SOURCE = ['--import', 'tsx']

let folder: string
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'sable-reading-'))
})
afterAll(() => rmSync(folder, { recursive: true }))

function put(name: string, bytes: Uint8Array): string {
  const path = join(folder, name)
  writeFileSync(path, bytes)
  return path
}
const block = (): string => put('block.stl', writeStl(blockMesh(4, 5, 6)))
const hostile = (fileName: string): string => {
  const { make } = [...smallHostileModels, ...largeHostileModels].find((file) => file.fileName === fileName)!
  return put(fileName, make())
}

describe('a model in a process of its own', () => {
  const read = readInProcess(READER, FROM_SOURCE)

  it('is read, or refused with the sentence that the reader gave', async () => {
    expect(await read(block(), 'block.stl')).toMatchObject({ triangles: 12, volumeMm3: 120, watertight: true })
    await expect(read(hostile('double.3mf'), 'double.3mf')).rejects.toMatchObject({ code: 'too-many-triangles', name: 'InputError' })
  })

  it('that takes longer than a file may is given up in a sentence', async () => {
    const impatient = readInProcess(READER, FROM_SOURCE, { ...readingBounds, seconds: 0.05 })
    await expect(impatient(block(), 'block.stl')).rejects.toMatchObject({ code: 'reading-took-too-long', where: 'block.stl' })
  })

  it('that takes more memory than a file may is given up, whether its numbers or its lists take it', async () => {
    const numbers = readInProcess(READER, FROM_SOURCE, { ...readingBounds, megabytes: 30 })
    await expect(numbers(hostile('ends.obj'), 'ends.obj')).rejects.toMatchObject({ code: 'reading-took-too-much' })
    // The engine itself ends the process then, in a way that no thread survives.
    const greedy = put('greedy.mjs', Buffer.from('const all = []; for (;;) all.push({ one: [all.length] })'))
    const lists = readInProcess(greedy, [], { ...readingBounds, heapMegabytes: 40 })
    await expect(lists(block(), 'block.stl')).rejects.toMatchObject({ code: 'reading-took-too-much' })
  })

  it('is given up when nobody waits any more', async () => {
    const left = new AbortController()
    const reading = read(hostile('full.3mf'), 'full.3mf', left.signal)
    left.abort()
    await expect(reading).rejects.toMatchObject({ code: 'reading-cancelled' })
  })
})

describe('uploads', () => {
  let server: OpenServer
  let listening: Server
  let port: number
  beforeAll(async () => {
    server = await openServer('upload_tests', false, undefined, readInProcess(READER, FROM_SOURCE))
    listening = server.app.listen(0, '127.0.0.1')
    await once(listening, 'listening')
    port = (listening.address() as AddressInfo).port
  })
  afterAll(async () => {
    listening.close()
    await server.close()
  })
  const leftOver = (): string[] => readdirSync(server.uploadFolder)

  /** Sends the beginning of an upload and gives what is answered until the connection ends. */
  function sendRaw(head: string, body: Uint8Array | string = ''): { answer: Promise<string>; leave: () => void } {
    const socket = connect(port, '127.0.0.1', () => {
      socket.write(
        `POST /api/parts?fileName=x.stl HTTP/1.1\r\nHost: localhost:4999\r\nContent-Type: application/octet-stream\r\n${head}\r\n\r\n`,
      )
      socket.write(body)
    })
    let text = ''
    const answer = new Promise<string>((resolve) => {
      socket.on('data', (piece) => {
        text += piece
        if (text.includes('}')) socket.destroy()
      })
      socket.on('error', () => {})
      socket.on('close', () => resolve(text))
    })
    return { answer, leave: () => socket.destroy() }
  }

  it('of several files at once are all taken, one after another, and leave nothing behind', async () => {
    const talk = talkTo(server)
    const answers = await Promise.all([...Array(8).keys()].map((i) => talk.upload(writeStl(blockMesh(5, 5, 5 + i)), `block-${i}.stl`)))
    expect(answers.map(({ status }) => status)).toEqual(Array(8).fill(201))
    expect(answers.map(({ body }) => body.name).sort()).toEqual([...Array(8).keys()].map((i) => `block-${i}`))
    expect(leftOver()).toEqual([])
  })

  it('announced as too large are refused before anything of them is read', async () => {
    expect(await sendRaw('Content-Length: 99999999999').answer).toMatch(/^HTTP\/1\.1 413 [\s\S]*larger than 64 MB/)
    expect(leftOver()).toEqual([])
  })

  it('of another type are refused', async () => {
    const { body } = await talkTo(server).post('/api/parts?fileName=x.stl').type('text/plain').send('solid x')
    expect(body).toMatchObject({ status: 415, code: 'other-type' })
  })

  it('beyond what can be under way are asked to come again, and let in once others are gone', async () => {
    const others = Array.from({ length: 16 }, () => sendRaw('Content-Length: 1000', 'solid'))
    const talk = talkTo(server)
    const bytes = writeStl(blockMesh(9, 9, 9))
    // All have come in: three are being received, the others wait for their turn.
    await expect.poll(() => promisify(listening.getConnections.bind(listening))()).toBe(16)
    await expect.poll(() => leftOver().length).toBe(3)
    const refused = await talk.upload(bytes, 'late.stl')
    expect(refused.status).toBe(503)
    expect(Number(refused.headers['retry-after'])).toBeGreaterThan(0)
    for (const { leave } of others) leave()
    await Promise.all(others.map(({ answer }) => answer))
    await expect.poll(async () => (await talk.upload(bytes, 'late.stl')).status).toBe(201)
    expect(leftOver()).toEqual([])
  })

  it('that stop coming end by themselves', async () => {
    const stalled = new ReadableStream<Uint8Array>({ start: (control) => control.enqueue(new Uint8Array(10)) })
    const { Readable } = await import('node:stream')
    const request = Object.assign(Readable.fromWeb(stalled as never), { headers: {} })
    const taking = receiveUpload(request as never, server.uploadFolder, { silentMs: 60, wholeMs: 10_000 })
    await expect(taking).rejects.toMatchObject({ status: 408, code: 'upload-stopped' })
    expect(leftOver()).toEqual([])
  })

  it('whose sender goes away are read no further', async () => {
    const bytes = writeStl(blockMesh(3, 3, 3))
    const { leave } = sendRaw(`Content-Length: ${bytes.length}`, bytes)
    await wait(50)
    leave()
    await expect.poll(leftOver, { timeout: 20_000 }).toEqual([])
    expect((await talkTo(server).get('/api/health')).status).toBe(200)
  })
})
