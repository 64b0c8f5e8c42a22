import { createHash } from 'node:crypto'
import { createWriteStream, mkdtempSync, readdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PassThrough, Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { BackupManifest } from '@sable/contract/backup'
import { writeStl } from '@sable/core/formats/writeStl'
import { blockMesh } from '@sable/core/testing/solids'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ZipFile } from 'yazl'
import { stepNames } from '../../database/migrations/migrate'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'
import { openBackup } from './openBackup'
import { FILES_TABLE, MANIFEST, tables } from './tables'
import { writeBackupFile } from './writeBackup'

let server: OpenServer
let talk: ReturnType<typeof talkTo>
let folder: string
beforeAll(async () => {
  server = await openServer('backup_tests')
  talk = talkTo(server)
  folder = mkdtempSync(join(tmpdir(), 'sable-backup-'))
})
afterAll(async () => {
  await server.close()
  rmSync(folder, { recursive: true })
})

/** All that a person sees of a desk. */
async function seen(of = talk): Promise<object> {
  const lineups = (await of.get('/api/lineups')).body as { id: string }[]
  return {
    parts: (await of.get('/api/parts')).body,
    shelf: (await of.get('/api/shelf')).body,
    lineups: await Promise.all(lineups.map(async ({ id }) => (await of.get(`/api/lineups/${id}`)).body)),
  }
}
const restore = (file: string, over = true, of = talk) =>
  of
    .post(`/api/backup/restored${over ? '?over=1' : ''}`)
    .type('application/zip')
    .send(readFileSync(file))

async function changeEverything(): Promise<void> {
  const [first] = (await talk.get('/api/lineups')).body
  const { body: lineup } = await talk.get(`/api/lineups/${first.id}`)
  const { id: _, demo: __, updatedAt: ___, ...write } = lineup
  await talk.put(`/api/lineups/${first.id}`).send({ ...write, name: 'changed', candidates: [] })
  await talk.upload(writeStl(blockMesh(2, 3, 9)), 'another.stl')
  const { body: shelf } = await talk.get('/api/shelf')
  await talk.del(`/api/shelf/spools/${shelf.spools[0].key}`)
}

/** An archive of the given files with a manifest that fits them. */
async function archive(path: string, files: ReadonlyMap<string, Buffer>, more: Partial<BackupManifest> = {}): Promise<void> {
  const zip = new ZipFile()
  for (const [name, bytes] of files) zip.addReadStream(Readable.from([bytes]), name)
  const manifest = {
    format: 'sable-lantern/backup',
    version: 1,
    writtenAt: '',
    steps: stepNames,
    files: [...files].map(([name, bytes]) => ({
      path: name,
      bytes: bytes.length,
      sha256: createHash('sha256').update(bytes).digest('hex'),
    })),
    ...more,
  }
  zip.addBuffer(Buffer.from(JSON.stringify(manifest)), MANIFEST)
  zip.end()
  await pipeline(zip.outputStream, createWriteStream(path))
}

describe('a backup', () => {
  it('holds every table that there is', async () => {
    const found = await server.sequelize.query<Record<string, string>>('SHOW TABLES', { type: QueryTypes.SELECT })
    const names = found.map((row) => Object.values(row)[0]!).filter((name) => name !== 'SequelizeMeta')
    expect(names.sort()).toEqual([FILES_TABLE, ...tables].sort())
  })

  it('brings back what was there, on the same desk and on an empty one', async () => {
    const before = await seen()
    const file = join(folder, 'whole.zip')
    await pipeline(
      Readable.from([
        (
          await talk
            .get('/api/backup')
            .buffer(true)
            .parse(asBuffer as never)
        ).body,
      ]),
      createWriteStream(file),
    )
    await changeEverything()
    expect(await seen()).not.toEqual(before)

    const refused = await restore(file, false)
    expect(refused.body).toMatchObject({ status: 409, code: 'desk-not-empty', current: { parts: 1 } })
    expect((await restore(file)).status).toBe(200)
    expect(await seen()).toEqual(before)
    // What was replaced stands as a backup of its own.
    expect(readdirSync(join(server.uploadFolder, 'backups')).filter((name) => name.startsWith('before-restore'))).toHaveLength(1)

    const other = await openServer('backup_other', false)
    expect((await restore(file, false, talkTo(other))).status).toBe(200)
    expect(await seen(talkTo(other))).toEqual(before)
    const [part] = await other.parts.list()
    expect((await other.parts.file(part!.id)).bytes).toEqual((await server.parts.file(part!.id)).bytes)
    await other.close()
  })

  it('is of one moment, whatever is written while it is', async () => {
    const held = new PassThrough({ highWaterMark: 1 })
    const pieces: Buffer[] = []
    const writing = server.backups.write(held)
    await new Promise((resolve) => setTimeout(resolve, 100))
    const [first] = (await talk.get('/api/lineups')).body
    const { id: _, demo: __, updatedAt: ___, ...write } = (await talk.get(`/api/lineups/${first.id}`)).body
    expect((await talk.put(`/api/lineups/${first.id}`).send({ ...write, name: 'meanwhile' })).status).toBe(200)
    for await (const piece of held) pieces.push(piece as Buffer)
    await writing
    const file = join(folder, 'moment.zip')
    writeFileSync(file, Buffer.concat(pieces))
    const backup = await openBackup(file)
    expect((await backup.read('tables/lineups.json')).toString()).not.toContain('meanwhile')
    backup.close()
  })

  it('that is damaged anywhere is refused by name before anything is touched', async () => {
    const file = join(folder, 'damaged.zip')
    await writeBackupFile(server.sequelize, file)
    const before = await seen()
    const bytes = readFileSync(file)
    for (let i = 1; i < 24; i++) {
      const changed = Buffer.from(bytes)
      changed[Math.floor((i * bytes.length) / 24)]! ^= 0x10
      writeFileSync(file, changed)
      const answer = await openBackup(file).then(
        (backup) => backup.close(),
        (error) => error,
      )
      // A byte of an archive may stand for nothing; whatever it stands for is found.
      if (answer) expect(answer).toMatchObject({ name: 'InputError', code: 'backup-damaged' })
    }
    writeFileSync(file, bytes.subarray(0, bytes.length / 2))
    const { body } = await restore(file)
    expect(body).toMatchObject({ status: 422, code: 'backup-damaged', remedy: expect.stringContaining('nothing on the desk was changed') })
    writeFileSync(file, 'no archive at all')
    expect((await restore(file)).body.code).toBe('backup-damaged')
    expect(await seen()).toEqual(before)
  })

  it('of another manifest than its files, or of a newer version, is refused', async () => {
    const file = join(folder, 'other.zip')
    const rows = new Map([['tables/lineups.json', Buffer.from('[]')]])
    await archive(file, rows, { files: [{ path: 'tables/lineups.json', bytes: 2, sha256: 'a'.repeat(64) }] })
    expect((await restore(file)).body.detail).toContain('tables/lineups.json is not what was written')
    await archive(file, new Map(), { files: [{ path: 'tables/parts.json', bytes: 2, sha256: 'a'.repeat(64) }] })
    expect((await restore(file)).body.detail).toContain('tables/parts.json is missing')
    await archive(file, rows, { steps: [...stepNames, '99-from-the-future'] })
    expect((await restore(file)).body).toMatchObject({ code: 'backup-newer', detail: expect.stringContaining('99-from-the-future') })
  })

  it('of an older version is brought to this one', async () => {
    const file = join(folder, 'recent.zip')
    await writeBackupFile(server.sequelize, file)
    const before = await seen()
    const recent = await openBackup(file)
    const files = new Map<string, Buffer>()
    for (const { path } of recent.manifest.files) if (path !== 'tables/marks.json') files.set(path, await recent.read(path))
    recent.close()
    const write = (table: string, change: (row: Record<string, unknown>) => object): void => {
      const path = `tables/${table}.json`
      const rows = JSON.parse(files.get(path)!.toString()) as Record<string, unknown>[]
      files.set(path, Buffer.from(JSON.stringify(rows.map(change))))
    }
    write('parts', ({ removed_at: _, ...part }) => part)
    write('lineups', ({ removed_at: _, ...lineup }) => lineup)
    write('profiles', ({ overrides, ...profile }) => ({ ...profile, exceptions: '[]', revision: 1 }))
    for (const later of [
      'jobs',
      'trials',
      'readings',
      'trial_photos',
      'prints',
      'print_photos',
      'print_programs',
      'print_runs',
      'experiments',
      'cases',
      'queues',
      'plates',
    ])
      files.delete(`tables/${later}.json`)
    const old = join(folder, 'old.zip')
    await archive(old, files, { steps: stepNames.slice(0, stepNames.indexOf('07-removed-parts-and-marks')) })
    expect((await restore(old)).status).toBe(200)
    // What was read of trials came later than that version.
    expect(await seen()).toEqual({ ...before, shelf: { ...(before as { shelf: object }).shelf, evidence: [], uses: [] } })
    expect(await server.marks.has('demo')).toBe(true)
  })

  it('is written once a day by itself, the last seven kept', async () => {
    const kept = (): string[] => readdirSync(join(server.uploadFolder, 'backups')).filter((name) => name.startsWith('daily'))
    const day = (n: number): Date => new Date(Date.UTC(2031, 4, n, 9))
    for (let n = 1; n <= 9; n++) {
      await server.backups.writeDaily(day(n))
      const newest = join(server.uploadFolder, 'backups', kept().sort().at(-1)!)
      utimesSync(newest, day(n), day(n))
      // Later on the same day none is due.
      await server.backups.writeDaily(new Date(day(n).getTime() + 3600_000))
    }
    expect(kept().sort()).toEqual([3, 4, 5, 6, 7, 8, 9].map((n) => `daily-2031-05-0${n}T09-00-00.zip`))
  })
})

function asBuffer(response: NodeJS.ReadableStream, done: (error: Error | null, body: Buffer) => void): void {
  const pieces: Buffer[] = []
  response.on('data', (piece: Buffer) => pieces.push(piece))
  response.on('end', () => done(null, Buffer.concat(pieces)))
}
