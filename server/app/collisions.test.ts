import { randomUUID } from 'node:crypto'
import type { Lineup, LineupContent } from '@sable/contract/lineup'
import { writeStl } from '@sable/core/formats/writeStl'
import { starterPrinters } from '@sable/core/shelf/starter'
import { blockMesh } from '@sable/core/testing/solids'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../testing/openServer'
import { talkTo } from '../testing/talk'

let server: OpenServer
let talk: ReturnType<typeof talkTo>
beforeAll(async () => {
  server = await openServer('collision_tests')
  talk = talkTo(server)
})
afterAll(() => server.close())

const numbers = (count: number): number[] => [...Array(count).keys()]

async function demo(): Promise<LineupContent> {
  const {
    id: _,
    revision: __,
    demo: ___,
    updatedAt: ____,
    ...content
  }: Lineup = await server.lineups.get((await server.lineups.list())[0]!.id)
  return content
}
const withNewIds = (content: LineupContent, name: string): LineupContent => ({
  ...content,
  name,
  candidates: content.candidates.map((candidate) => ({ ...candidate, id: randomUUID() })),
})

describe('at the same moment', () => {
  it('six uploads of a new file give the same part to all', async () => {
    const bytes = writeStl(blockMesh(11, 12, 13))
    const answers = await Promise.all(numbers(6).map(() => talk.upload(bytes, 'same.stl')))
    expect(answers.map(({ status }) => status)).toEqual(Array(6).fill(201))
    expect(new Set(answers.map(({ body }) => body.id)).size).toBe(1)
  })

  it('twenty records of one name are all there under keys of their own', async () => {
    const { key: _, ...record } = starterPrinters[0]!
    const answers = await Promise.all(numbers(20).map(() => talk.post('/api/shelf/printers').send({ ...record, key: 'new', name: 'Twin' })))
    expect(answers.map(({ status }) => status)).toEqual(Array(20).fill(201))
    expect(new Set(answers.map(({ body }) => body.key)).size).toBe(20)
  })

  it('a record that is deleted while lineups take it is refused to one side, by a sentence', async () => {
    const content = await demo()
    for (const round of numbers(6)) {
      const { body: made } = await talk.post('/api/shelf/printers').send({ ...starterPrinters[0]!, key: 'new', name: `Gone ${round}` })
      const lineup = withNewIds(
        { ...content, candidates: content.candidates.map((one) => ({ ...one, printer: made.key })) },
        `round ${round}`,
      )
      const answers = await Promise.all([
        talk.post('/api/lineups').send(lineup),
        talk.del(`/api/shelf/printers/${made.key}`),
        talk.post('/api/lineups').send(withNewIds(lineup, `round ${round} too`)),
      ])
      for (const { status, body } of answers) {
        expect([200, 201, 409, 422]).toContain(status)
        if (status >= 400) expect(body.remedy).not.toBe('')
      }
    }
  })

  it('a part that is taken away while lineups take it is refused to one side', async () => {
    const content = await demo()
    for (const round of numbers(6)) {
      const { body: part } = await talk.upload(writeStl(blockMesh(5, 6, 7 + round)), `round-${round}.stl`)
      const answers = await Promise.all([
        talk.post('/api/lineups').send(withNewIds({ ...content, partId: part.id }, `part ${round}`)),
        talk.put(`/api/parts/${part.id}/removed`).send({ removed: true }),
      ])
      expect(
        answers
          .map(({ status }) => status)
          .sort()
          .join(),
      ).toMatch(/^(200,404|201,409)$/)
    }
  })
})

describe('a candidate', () => {
  it('belongs to one lineup: another one that names its id is refused and the first stays as it is', async () => {
    const { body: first } = await talk.post('/api/lineups').send(withNewIds(await demo(), 'first'))
    const stolen = { ...withNewIds(first, 'second'), candidates: [{ ...first.candidates[0], name: 'rewritten', values: {} }] }
    const { partId, placement, purpose } = first
    const answer = await talk.post('/api/lineups').send({ name: 'second', partId, placement, purpose, candidates: stolen.candidates })
    expect(answer.status).toBe(409)
    expect(answer.body).toMatchObject({ code: 'candidate-elsewhere', where: expect.stringContaining(first.candidates[0].id) })
    expect((await talk.get(`/api/lineups/${first.id}`)).body).toEqual(first)
  })

  it('goes with its lineup: the same ids are free once that is removed', async () => {
    const content = withNewIds(await demo(), 'short-lived')
    const { body: first } = await talk.post('/api/lineups').send(content)
    await talk.del(`/api/lineups/${first.id}`)
    expect((await talk.post('/api/lineups').send({ ...content, name: 'again' })).status).toBe(201)
  })
})
