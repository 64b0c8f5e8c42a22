import { writeStl } from '@sable/core/formats/writeStl'
import { archiveOf, smallHostileModels } from '@sable/core/testing/hostileFiles'
import { blockMesh } from '@sable/core/testing/solids'
import { demoLineups } from '@sable/demo/lineups'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'
import { seedDemo } from '../demo/seed'

let server: OpenServer
let talk: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('set_aside_tests')
  talk = talkTo(server)
})
afterAll(() => server.close())

describe('a model that no part can be made of', () => {
  it.each(smallHostileModels)('$what: is refused in a sentence, and nothing is stored', async ({ fileName, make }) => {
    const before = await server.models.parts.count()
    const { status, body } = await talk.upload(make(), fileName)
    expect(status).toBe(422)
    expect(body.detail).toMatch(/\w.*\.$/)
    expect(body.remedy).toMatch(/\w.*\.$/)
    expect(await server.models.parts.count()).toBe(before)
    expect((await talk.get('/api/parts')).status).toBe(200)
  })

  it('is refused too when it is no archive at all', async () => {
    expect((await talk.upload(archiveOf('<model'), 'cut.3mf')).body.code).toBe('3mf-malformed')
  })
})

describe('what is stored and cannot be read', () => {
  it("is told by name, stands in nobody's way, and can be removed", async () => {
    const { models } = server
    const { body: part } = await talk.upload(writeStl(blockMesh(3, 4, 5)), 'spoilt.stl')
    const [lineup] = await server.lineups.list()
    await models.parts.update({ report: '{"triangles":1,"volumeMm3":null}' }, { where: { id: part.id } })
    await models.spools.update({ record: '{"key":"x"' }, { where: { recordKey: (await server.shelf.read()).spools[0]!.key } })
    const whole = await server.lineups.get(lineup!.id)
    const profile = await models.profiles.findByPk(whole.candidates[0]!.id)
    const values = profile!.settingValues
    await profile!.update({ settingValues: '{"layerHeight":"thick"}' })

    for (const path of ['/api/parts', '/api/shelf', '/api/lineups', '/api/shelf/file']) expect((await talk.get(path)).status).toBe(200)
    expect((await talk.get('/api/parts')).body.map(({ id }: { id: string }) => id)).not.toContain(part.id)
    expect((await talk.get(`/api/lineups/${lineup!.id}`)).body).toMatchObject({
      status: 422,
      code: 'unreadable-record',
      detail: expect.stringContaining('candidates.0.values.layerHeight'),
    })

    const { body: setAside } = await talk.get('/api/set-aside')
    expect(setAside.map(({ kind, name }: { kind: string; name: string }) => `${kind} ${name}`).sort()).toEqual([
      `lineup ${whole.name}`,
      'part spoilt',
      expect.stringMatching(/^spool /),
    ])
    for (const one of setAside) expect(`${one.why} / ${one.stored}`).toMatch(/\w.+ \/ \{/)

    // Starting again does not depend on any of it.
    await seedDemo(server, false, server.uploadFolder)

    expect((await talk.del(`/api/set-aside/part/${part.id}`)).body).toHaveLength(2)
    // What can be read is not removed this way.
    await profile!.update({ settingValues: values })
    expect((await talk.del(`/api/set-aside/lineup/${lineup!.id}`)).status).toBe(404)
    expect(await server.lineups.get(lineup!.id)).toEqual(whole)
  })
})

describe('a part', () => {
  it('in use is not taken away; another one is, and comes back by undo or by its file', async () => {
    const [used] = (await talk.get('/api/lineups')).body
    const refused = await talk.put(`/api/parts/${used.partId}/removed`).send({ removed: true })
    expect(refused.body).toMatchObject({ status: 409, code: 'part-in-use', detail: expect.stringContaining(used.name) })

    const bytes = writeStl(blockMesh(6, 4, 2))
    const { body: part } = await talk.upload(bytes, 'spare.stl')
    const listed = async () => (await talk.get('/api/parts')).body.some(({ id }: { id: string }) => id === part.id)
    await talk.put(`/api/parts/${part.id}/removed`).send({ removed: true }).expect(200)
    expect(await listed()).toBe(false)
    await talk.put(`/api/parts/${part.id}/removed`).send({ removed: false }).expect(200)
    expect(await listed()).toBe(true)
    await talk.put(`/api/parts/${part.id}/removed`).send({ removed: true })
    expect((await talk.upload(bytes, 'spare.stl')).body.id).toBe(part.id)
    expect(await listed()).toBe(true)
  })

  it('that was set aside is mended by loading its file again', async () => {
    const bytes = writeStl(blockMesh(6, 5, 4))
    const { body: part } = await talk.upload(bytes, 'mended.stl')
    await server.models.parts.update({ report: '{"triangles":12,"volumeMm3":null}' }, { where: { id: part.id } })
    expect((await talk.get('/api/parts')).body.map(({ id }: { id: string }) => id)).not.toContain(part.id)
    const again = await talk.upload(bytes, 'mended.stl')
    expect(again.status).toBe(201)
    expect(again.body).toEqual(part)
    expect((await talk.get('/api/parts')).body).toContainEqual(part)
  })

  it('that was taken away long ago is forgotten with its file', async () => {
    const { body: part } = await talk.upload(writeStl(blockMesh(6, 4, 3)), 'old.stl')
    await talk.put(`/api/parts/${part.id}/removed`).send({ removed: true })
    await server.parts.forgetRemoved(new Date())
    expect(await server.models.blobs.count({ where: { contentKey: part.contentKey } })).toBe(1)
    await server.parts.forgetRemoved(new Date(Date.now() + 8 * 24 * 3600 * 1000))
    expect(await server.models.blobs.count({ where: { contentKey: part.contentKey } })).toBe(0)
  })
})

describe('the demo', () => {
  it('that was half made when it was interrupted is made to its end', async () => {
    const fresh = await openServer('half_demo_tests', false)
    const failing = { ...fresh, lineups: { ...fresh.lineups, create: () => Promise.reject(new Error('killed')) } }
    await expect(seedDemo(failing, false, fresh.uploadFolder)).rejects.toThrow('killed')
    expect((await fresh.parts.list()).length).toBeGreaterThan(0)
    await seedDemo(fresh, false, fresh.uploadFolder)
    expect(await fresh.lineups.list()).toHaveLength(demoLineups.length)
    expect((await fresh.parts.list()).filter(({ demo }) => demo)).toHaveLength(new Set((await fresh.parts.list()).map(({ id }) => id)).size)
    await fresh.close()
  })
})
