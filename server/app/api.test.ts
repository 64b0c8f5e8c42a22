import { randomUUID } from 'node:crypto'
import type { Lineup, LineupWrite } from '@sable/contract/lineup'
import { problemSchema } from '@sable/contract/problem'
import { writeStl } from '@sable/core/formats/writeStl'
import { settingNames } from '@sable/core/profile/settings'
import { blockMesh } from '@sable/core/testing/solids'
import request from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { migrate } from '../database/migrations/migrate'
import { seedDemo } from '../features/demo/seed'
import { type OpenServer, openServer, TEST_PORT } from '../testing/openServer'

let server: OpenServer
beforeAll(async () => {
  server = await openServer('api_tests')
})
afterAll(() => server.close())

const HOST = `localhost:${TEST_PORT}`
const get = (path: string) => request(server.app).get(path).set('Host', HOST)
const post = (path: string) => request(server.app).post(path).set('Host', HOST)
const put = (path: string) => request(server.app).put(path).set('Host', HOST)
const upload = (bytes: Uint8Array, fileName: string) =>
  post(`/api/parts?fileName=${encodeURIComponent(fileName)}`)
    .type('application/octet-stream')
    .send(Buffer.from(bytes))

async function demo(): Promise<Lineup> {
  const [first] = (await get('/api/lineups')).body.filter((lineup: Lineup) => lineup.demo)
  return (await get(`/api/lineups/${first.id}`)).body
}
const writeOf = ({ name, partId, placement, purpose, candidates, revision }: Lineup): LineupWrite => ({
  name,
  partId,
  placement,
  purpose,
  candidates,
  revision,
})

describe('the demo', () => {
  it('is there once: the carry hook with three candidates, four parts, a shelf', async () => {
    await seedDemo(server, false, server.uploadFolder)
    const lineup = await demo()
    expect(lineup.candidates.map(({ name }) => name)).toEqual(['everyday', 'sturdy', 'quick'])
    const parts = (await get('/api/parts')).body
    expect(parts.map(({ name }: { name: string }) => name)).toEqual(
      expect.arrayContaining(['carry hook', 'shade', 'battery tray', 'finial']),
    )
    expect(parts.find(({ name }: { name: string }) => name === 'shade').report.triangles).toBeGreaterThanOrEqual(60_000)
    for (const part of parts) expect(part.report.watertight).toBe(true)
    const shelf = (await get('/api/shelf')).body
    expect(shelf.printers).toHaveLength(4)
    expect(shelf.printers.map(({ limits }: { limits: { acceleration: { x: number } } }) => limits.acceleration.x)).toEqual([
      800, 3000, 20_000, 2000,
    ])
  })

  it('can be made anew without touching anything else', async () => {
    const lineup = await demo()
    const { body: mine } = await post('/api/lineups').send({ ...writeOf(lineup), name: 'mine', candidates: [] })
    await put(`/api/lineups/${lineup.id}`)
      .send({ ...writeOf(lineup), candidates: [] })
      .expect(200)
    await seedDemo(server, true, server.uploadFolder)
    expect((await demo()).candidates).toHaveLength(3)
    expect((await get(`/api/lineups/${mine.id}`)).body.name).toBe('mine')
  })

  it('survives migrating again', async () => {
    await migrate(server.sequelize)
    expect((await demo()).candidates).toHaveLength(3)
  })
})

describe('lineups', () => {
  it('come back as they were written', async () => {
    const lineup = await demo()
    const [first, ...rest] = lineup.candidates
    const changed = { ...first!, name: 'everyday, thinner', values: { ...first!.values, layerHeight: 0.12 } }
    const { body: saved } = await put(`/api/lineups/${lineup.id}`)
      .send({ ...writeOf(lineup), candidates: [...rest, changed] })
      .expect(200)
    expect(saved.revision).toBe(lineup.revision + 1)
    expect((await get(`/api/lineups/${lineup.id}`)).body).toEqual(saved)
    expect(saved.candidates.at(-1)).toEqual(changed)
  })

  it('lose a column, and undo brings it back', async () => {
    const lineup = await demo()
    const removed = lineup.candidates[1]!
    const { body: without } = await put(`/api/lineups/${lineup.id}`).send({
      ...writeOf(lineup),
      candidates: lineup.candidates.filter(({ id }) => id !== removed.id),
    })
    const { body: back } = await put(`/api/lineups/${lineup.id}`)
      .send({ ...writeOf(lineup), revision: without.revision })
      .expect(200)
    expect(back.candidates).toEqual(lineup.candidates)
  })

  it('refuse a stale write, show what is there now, and change nothing', async () => {
    const lineup = await demo()
    const { body: newer } = await put(`/api/lineups/${lineup.id}`).send({ ...writeOf(lineup), name: 'from the other window' })
    const answer = await put(`/api/lineups/${lineup.id}`).send({ ...writeOf(lineup), name: 'from this window' })
    expect(answer.status).toBe(409)
    const problem = problemSchema.parse(answer.body)
    expect(problem.code).toBe('stale-write')
    expect(problem.current).toEqual(newer)
    expect((await get(`/api/lineups/${lineup.id}`)).body).toEqual(newer)
  })

  it('that are removed are kept for a month, come back as they were, and can be let go of for good', async () => {
    const lineup = await demo()
    const content = { ...writeOf(lineup), candidates: lineup.candidates.map((one) => ({ ...one, id: randomUUID() })) }
    const { body: made } = await post('/api/lineups').send(content)
    const listed = async () => (await get('/api/lineups')).body.some(({ id }: Lineup) => id === made.id)
    const { body: removed } = await put(`/api/lineups/${made.id}/removed`).send({ removed: true })
    expect(removed).toEqual([{ id: made.id, name: made.name, removedAt: expect.stringMatching(/^20/) }])
    expect(await listed()).toBe(false)
    expect((await get(`/api/lineups/${made.id}`)).status).toBe(404)
    expect((await put(`/api/lineups/${made.id}`).send(writeOf(made))).status).toBe(404)
    expect((await put(`/api/parts/${made.partId}/removed`).send({ removed: true })).body.code).toBe('part-in-use')

    await put(`/api/lineups/${made.id}/removed`).send({ removed: false }).expect(200)
    expect((await get(`/api/lineups/${made.id}`)).body).toEqual(made)

    await put(`/api/lineups/${made.id}/removed`).send({ removed: true })
    const days = (n: number) => new Date(Date.now() + n * 24 * 3600 * 1000)
    await server.lineups.forgetRemoved(days(29))
    expect((await get('/api/lineups/removed')).body).toHaveLength(1)
    await server.lineups.forgetRemoved(days(31))
    expect((await get('/api/lineups/removed')).body).toEqual([])
    expect((await put(`/api/lineups/${made.id}/removed`).send({ removed: false })).status).toBe(404)
    expect(await server.models.profiles.count({ where: { id: made.candidates.map(({ id }: { id: string }) => id) } })).toBe(0)
  })

  it('let only one of two writes from the same revision through', async () => {
    const lineup = await demo()
    const answers = await Promise.all(
      ['a', 'b', 'c', 'd'].map((name) => put(`/api/lineups/${lineup.id}`).send({ ...writeOf(lineup), name })),
    )
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409])
  })

  it.each([
    [
      'a value out of range',
      (lineup: Lineup) => ({ candidates: [{ ...lineup.candidates[0]!, values: { layerHeight: 9 } }] }),
      400,
      'candidates.0.values.layerHeight',
    ],
    [
      'an unknown setting',
      (lineup: Lineup) => ({ candidates: [{ ...lineup.candidates[0]!, values: { speedOfLight: 1 } }] }),
      400,
      'candidates.0.values',
    ],
    [
      'a printer that is not there',
      (lineup: Lineup) => ({ candidates: [{ ...lineup.candidates[0]!, printer: 'nowhere' }] }),
      422,
      'candidate "',
    ],
    ['a part that is not there', () => ({ partId: randomUUID() }), 404, ''],
    ['the same candidate twice', (lineup: Lineup) => ({ candidates: [lineup.candidates[0]!, lineup.candidates[0]!] }), 400, 'candidates'],
  ])('refuse %s, name the place, and lose nothing', async (_what, change, status, where) => {
    const lineup = await demo()
    const answer = await put(`/api/lineups/${lineup.id}`).send({ ...writeOf(lineup), ...change(lineup) })
    expect(answer.status).toBe(status)
    expect(answer.type).toBe('application/problem+json')
    expect(problemSchema.parse(answer.body).where).toContain(where)
    expect((await get(`/api/lineups/${lineup.id}`)).body).toEqual(lineup)
  })

  it('hold every setting at once', async () => {
    const lineup = await demo()
    const { resolveSettings } = await import('@sable/core/setup/resolve')
    const { setupOf } = await import('@sable/core/testing/setups')
    const all = resolveSettings(setupOf(), {}).settings
    const candidate = { ...lineup.candidates[0]!, values: all }
    const { body } = await put(`/api/lineups/${lineup.id}`)
      .send({ ...writeOf(lineup), candidates: [candidate] })
      .expect(200)
    expect(Object.keys(body.candidates[0].values).sort()).toEqual([...settingNames].sort())
  })
})

describe('parts', () => {
  it('are stored once by content, and their file comes back byte for byte', async () => {
    const bytes = writeStl(blockMesh(11, 12, 13))
    const { body: first } = await upload(bytes, 'C:\\models\\block.stl').expect(201)
    expect(first).toMatchObject({ name: 'block', fileName: 'block.stl', demo: false, report: { triangles: 12, watertight: true } })
    const { body: again } = await upload(bytes, 'other name.stl').expect(201)
    expect(again.id).toBe(first.id)
    const file = await get(`/api/parts/${first.id}/file`)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = []
        response.on('data', (chunk: Buffer) => chunks.push(chunk))
        response.on('end', () => done(null, Buffer.concat(chunks)))
      })
    expect(new Uint8Array(file.body)).toEqual(bytes)
  })

  it.each([
    ['a truncated STL', writeStl(blockMesh(1, 1, 1)).slice(0, 200), 422, 'stl-truncated'],
    ['a text named .stl', new TextEncoder().encode('not a model'), 422, 'stl-not-stl'],
    ['an empty body', new Uint8Array(0), 422, 'stl-empty'],
  ])('refuse %s with a sentence, and store nothing', async (_what, bytes, status, code) => {
    const before = (await get('/api/parts')).body.length
    const answer = await upload(bytes, 'bad.stl')
    expect(answer.status).toBe(status)
    const problem = problemSchema.parse(answer.body)
    expect(problem).toMatchObject({ code, where: expect.stringContaining('bad.stl') })
    expect(problem.remedy).not.toBe('')
    expect((await get('/api/parts')).body).toHaveLength(before)
  })

  it('refuse more than 64 MB', async () => {
    const answer = await upload(new Uint8Array(64 * 1024 * 1024 + 1), 'huge.stl')
    expect(answer.status).toBe(413)
    expect(answer.body.remedy).toMatch(/Reduce/)
  })
})

describe('guards', () => {
  it('answer only under the own name and to the own pages', async () => {
    expect((await request(server.app).get('/api/shelf').set('Host', 'evil.example')).status).toBe(421)
    expect((await get('/api/shelf').set('Origin', 'http://evil.example')).status).toBe(403)
    expect((await get('/api/shelf').set('Origin', `http://127.0.0.1:${TEST_PORT}`)).status).toBe(200)
  })

  it('send security headers and isolate the page', async () => {
    const { headers } = await get('/api/shelf')
    expect(headers['content-security-policy']).toContain("default-src 'self'")
    expect(headers['cross-origin-opener-policy']).toBe('same-origin')
    expect(headers['cross-origin-embedder-policy']).toBe('require-corp')
    expect(headers['x-powered-by']).toBeUndefined()
  })

  it('answer a malformed body and an unknown address with a problem', async () => {
    const malformed = await post('/api/lineups').type('json').send('{"name":')
    expect([malformed.status, malformed.type]).toEqual([400, 'application/problem+json'])
    const nowhere = await get('/api/nowhere')
    expect([nowhere.status, nowhere.body.code]).toEqual([404, 'no-such-address'])
  })
})
