import type { Lineup } from '@sable/contract/lineup'
import { problemSchema } from '@sable/contract/problem'
import { type Shelf, shelfFileSchema, shelfKinds, shelfSchema } from '@sable/contract/shelf'
import { starterPrinters } from '@sable/core/shelf/starter'
import request from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer, TEST_PORT } from '../../testing/openServer'
import { seedDemo } from '../demo/seed'

let server: OpenServer
beforeAll(async () => {
  server = await openServer('shelf_tests')
})
afterAll(() => server.close())

const ask = (method: 'get' | 'post' | 'put' | 'delete', path: string) =>
  request(server.app)[method](path).set('Host', `localhost:${TEST_PORT}`)
const shelf = async (): Promise<Shelf> => shelfSchema.parse((await ask('get', '/api/shelf')).body)
const spool = { key: 'new', name: 'Deck white', material: 'pla', netG: 750, weighings: [], dried: [], defaults: {} }

describe('records of the shelf', () => {
  it('are there for the demo: four printers, nozzles, materials, spools, and profiles over materials and bores', async () => {
    const { printers, spools, profiles } = await shelf()
    expect(printers.every(({ starter, archived }) => starter && !archived)).toBe(true)
    expect(spools.map(({ key }) => key)).toContain('storm-black')
    expect(profiles.length).toBeGreaterThanOrEqual(12)
    expect(new Set(profiles.flatMap(({ materials }) => materials)).size).toBeGreaterThanOrEqual(4)
    expect(new Set(profiles.map(({ family }) => family)).size).toBeGreaterThanOrEqual(4)
  })

  it('are added under a key made from their name, changed, and keep every version', async () => {
    const { body: added } = await ask('post', '/api/shelf/spools').send(spool).expect(201)
    expect(added.key).toBe('deck-white')
    const { body: again } = await ask('post', '/api/shelf/spools').send(spool).expect(201)
    expect(again.key).toBe('deck-white-2')
    await ask('put', '/api/shelf/spools/deck-white')
      .send({ revision: 1, record: { ...spool, netG: 800 } })
      .expect(200)
    expect((await shelf()).spools.find(({ key }) => key === 'deck-white')?.netG).toBe(800)
    const { body: revisions } = await ask('get', '/api/shelf/spools/deck-white/revisions')
    expect(revisions.map(({ revision, record }: { revision: number; record: { netG: number } }) => [revision, record.netG])).toEqual([
      [2, 800],
      [1, 750],
    ])
  })

  it('keep what a starter record said before it was changed, and come back to it', async () => {
    const { limits } = starterPrinters[0]!
    await ask('put', '/api/shelf/printers/dory')
      .send({ revision: 1, record: { ...starterPrinters[0]!, name: 'Dory, tuned', limits: { ...limits, extruderSpeed: 70 } } })
      .expect(200)
    const { body: revisions } = await ask('get', '/api/shelf/printers/dory/revisions')
    expect(revisions.map(({ record }: { record: { name: string } }) => record.name)).toEqual(['Dory, tuned', 'Dory 220'])
    await ask('post', '/api/shelf/printers/dory/starter').expect(200)
    expect((await shelf()).printers.find(({ key }) => key === 'dory')).toMatchObject(starterPrinters[0]!)
    await ask('post', '/api/shelf/spools/storm-black/starter').expect(404)
  })

  it('refuse a change that started from an older version, and show what is there now', async () => {
    const { body: added } = await ask('post', '/api/shelf/spools').send({ ...spool, name: 'Twice edited' })
    const path = `/api/shelf/spools/${added.key}`
    await ask('put', path)
      .send({ revision: 1, record: { ...spool, name: 'From the other window' } })
      .expect(200)
    const answer = await ask('put', path).send({ revision: 1, record: { ...spool, name: 'From this window' } })
    expect(answer.status).toBe(409)
    expect(problemSchema.parse(answer.body)).toMatchObject({
      code: 'stale-write',
      current: { name: 'From the other window', revision: 2 },
    })
    expect((await shelf()).spools.find(({ key }) => key === added.key)).toMatchObject({ name: 'From the other window', revision: 2 })
  })

  it('are archived and restored without losing their place in lineups', async () => {
    await ask('put', '/api/shelf/printers/lugger/archived').send({ archived: true }).expect(200)
    expect((await shelf()).printers.find(({ key }) => key === 'lugger')?.archived).toBe(true)
    await ask('put', '/api/shelf/printers/lugger/archived').send({ archived: false }).expect(200)
    expect((await shelf()).printers.find(({ key }) => key === 'lugger')?.archived).toBe(false)
  })

  it.each([
    ['a printer in a lineup', 'printers', 'lugger', /lineup "Carry hook/],
    ['a spool in a lineup', 'spools', 'storm-black', /lineup "Carry hook/],
    ['a material of a spool', 'materials', 'flexible', /spool "Buffer grey/],
  ])('are not deleted while in use: %s', async (_what, kind, key, where) => {
    const answer = await ask('delete', `/api/shelf/${kind}/${key}`)
    expect(answer.status).toBe(409)
    expect(problemSchema.parse(answer.body)).toMatchObject({ code: 'record-in-use', detail: expect.stringMatching(where) })
    expect(((await shelf())[kind as 'printers'] as { key: string }[]).some((record) => record.key === key)).toBe(true)
  })

  it('are deleted when nothing needs them, and starters can be brought back', async () => {
    await ask('delete', '/api/shelf/printers/towline').expect(200)
    expect((await shelf()).printers.map(({ key }) => key)).not.toContain('towline')
    // A restart does not bring back what was taken off the shelf.
    await seedDemo(server, false, server.uploadFolder)
    expect((await shelf()).printers.map(({ key }) => key)).not.toContain('towline')
    await ask('post', '/api/shelf/starters').expect(200)
    expect((await shelf()).printers.map(({ key }) => key)).toContain('towline')
  })

  it('tell where they are in use', async () => {
    const { body } = await ask('get', '/api/shelf/materials/pla/uses')
    expect(body.lineups).toContain('Carry hook for the harbour lantern')
    expect(body.columns).toBeGreaterThanOrEqual(body.lineups.length)
    expect(body.spools).toContain('Storm black PLA')
    await ask('get', '/api/shelf/materials/nowhere/uses').expect(404)
  })

  it.each([
    ['a kind that there is not', 'post', '/api/shelf/kettles', spool, 400],
    ['a bore below nothing', 'post', '/api/shelf/nozzles', { key: 'x', name: 'x', bore: -1 }, 400],
    ['a range upside down', 'post', '/api/shelf/spools', { ...spool, nozzleRange: [220, 190] }, 400],
    ['a spool of no material', 'post', '/api/shelf/spools', { ...spool, material: 'moonrock' }, 422],
    ['a record that is not there', 'put', '/api/shelf/spools/nowhere', { revision: 1, record: spool }, 404],
  ] as const)('refuse %s with a sentence', async (_what, method, path, body, status) => {
    const answer = await ask(method, path).send(body)
    expect(answer.status).toBe(status)
    expect(problemSchema.parse(answer.body).detail.length).toBeGreaterThan(5)
  })
})

describe('the shelf as a file', () => {
  it('goes out and comes back the same', async () => {
    const { body: file } = await ask('get', '/api/shelf/file')
    const before = await shelf()
    expect(shelfFileSchema.parse(file).printers).toEqual(before.printers)
    const { body } = await ask('post', '/api/shelf/file').send(file).expect(200)
    expect(body.added).toBe(0)
    expect(body.replaced).toBe(shelfKinds.flatMap((kind): object[] => before[kind]).length)
    const unnumbered = (all: Shelf) => shelfKinds.flatMap((kind) => all[kind].map((record) => ({ ...record, revision: 0 })))
    expect(unnumbered(await shelf())).toEqual(unnumbered(before))
  })

  it('brings records with their materials, all or nothing', async () => {
    const before = await shelf()
    const file = { format: 'sable-lantern/shelf', version: 1 }
    const stray = { ...spool, key: 'stray', material: 'moonrock' }
    await ask('post', '/api/shelf/file')
      .send({ ...file, nozzles: [{ key: 'fine', name: 'Fine', bore: 0.15 }], spools: [stray] })
      .expect(422)
    expect(await shelf()).toEqual(before)
    const moonrock = { ...before.materials[0]!, key: 'moonrock', name: 'Moonrock' }
    const { body } = await ask('post', '/api/shelf/file')
      .send({ ...file, spools: [stray], materials: [moonrock] })
      .expect(200)
    expect(body).toMatchObject({ added: 2, replaced: 0 })
    const twice = await ask('post', '/api/shelf/file').send({ ...file, spools: [spool, spool] })
    expect([twice.status, twice.body.code]).toEqual([422, 'key-twice'])
    await ask('post', '/api/shelf/file').send({ format: 'other' }).expect(400)
  })
})

describe('a spool in a lineup', () => {
  it('is kept with its column, and must be on the shelf', async () => {
    const list = (await ask('get', '/api/lineups')).body as Lineup[]
    const lineup: Lineup = (await ask('get', `/api/lineups/${list.find(({ demo }) => demo)!.id}`)).body
    const { id, demo: _, updatedAt: __, ...write } = lineup
    expect(write.candidates.map(({ spool: own }) => own)).toEqual(['storm-black', undefined, undefined])
    const candidates = write.candidates.map((candidate, i) => (i === 1 ? { ...candidate, spool: 'rope-ends' } : candidate))
    const { body: saved } = await ask('put', `/api/lineups/${id}`)
      .send({ ...write, candidates })
      .expect(200)
    expect(saved.candidates[1].spool).toBe('rope-ends')
    await ask('put', `/api/lineups/${id}`)
      .send({ ...write, revision: saved.revision, candidates: candidates.map((candidate) => ({ ...candidate, spool: 'nowhere' })) })
      .expect(422)
  })
})
