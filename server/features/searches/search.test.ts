import { jobListSchema } from '@sable/contract/job'
import type { FoundVariant, Search, SearchEvent, SearchSpec } from '@sable/contract/search'
import type { Variant } from '@sable/core/search/explore'
import { limitsOf } from '@sable/core/search/figures'
import { toSolve } from '@sable/core/search/toSolve'
import request from 'supertest'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { inProcess } from '../../testing/inProcess'
import { type OpenServer, openServer, TEST_PORT } from '../../testing/openServer'
import type { SearchUnit } from './searchUnits'

let server: OpenServer
let spec: SearchSpec
const api = () => request(server.app)
const local = { Host: `localhost:${TEST_PORT}`, Origin: `http://localhost:${TEST_PORT}` }
beforeAll(async () => {
  server = await openServer('searches')
  const [listed] = await server.lineups.list()
  const lineup = await server.lineups.get(listed!.id)
  spec = {
    lineupId: lineup.id,
    partId: lineup.partId,
    placement: lineup.placement,
    purpose: lineup.purpose,
    base: lineup.candidates[0]!,
    dimensions: [
      { kind: 'setting', name: 'layerHeight', values: [0.1, 0.15, 0.2, 0.25, 0.3] },
      { kind: 'setting', name: 'wallCount', values: [2, 3, 4, 5, 6, 13] },
      { kind: 'setting', name: 'infillDensity', values: [5, 10, 15, 20, 25, 30, 35, 40] },
    ],
    objectives: [
      { figure: 'time', better: 'less' },
      { figure: 'surface', better: 'less' },
      { figure: 'strength', better: 'more' },
    ],
    limits: limitsOf(lineup.purpose),
    budget: 90,
    seed: 4,
  }
})
afterAll(() => server.close())

const begin = async (change: Partial<SearchSpec> = {}): Promise<Search> => {
  const { body } = await api()
    .post('/api/searches')
    .set(local)
    .send({ ...spec, ...change })
    .expect(201)
  return body as Search
}
/** Waits until a search has come to rest. */
async function atRest(id: string): Promise<Search> {
  for (;;) {
    const search = await server.searches.get(id)
    if (!['waiting', 'running'].includes(search.state)) return search
    await new Promise((resolve) => setTimeout(resolve, 20))
  }
}
const found = (id: string): Promise<FoundVariant[]> => server.searches.variants(id)

describe('a search on the server', () => {
  it('runs to its budget, keeps what it found, and counts what it reused', async () => {
    const { id, of } = await begin()
    expect(of).toBe(90)
    const search = await atRest(id)
    expect(search).toMatchObject({ state: 'done', done: 90, reused: 270, computed: 180 })
    const variants = await found(id)
    expect(variants.map(({ position }) => position)).toEqual([...variants.keys()])
    expect(new Set(variants.map(({ choices }) => choices.join())).size).toBe(90)
    // Thirteen walls cannot be printed here: kept, without figures.
    for (const { choices, figures } of variants) expect(figures === undefined).toBe(choices[1] === 5)
    const { body } = await api().get(`/api/searches?lineup=${spec.lineupId}`).set(local).expect(200)
    expect(body.map((one: Search) => one.id)).toContain(id)
  })

  it('solves its front in the end, and after a break only what is missing of it', async () => {
    const seen: SearchUnit[] = []
    const runner = server.runnerOn(inProcess(2, [], seen))
    const { id } = await server.searches.create({ ...spec, limits: [] })
    runner.enqueue(id)
    const solvedOnes = (): SearchUnit[] => seen.filter(({ isSolved }) => isSolved)
    while (solvedOnes().length < 3) await new Promise((resolve) => setImmediate(resolve))
    await runner.pause(id)
    expect(await server.searches.get(id)).toMatchObject({ state: 'paused', done: 90 })
    await runner.resume(id)
    expect((await atRest(id)).state).toBe('done')
    await runner.close()
    const variants = await found(id)
    const front = toSolve(
      variants.map(({ figures }) => figures),
      { ...spec, limits: [] },
    ).map((i) => variants[i]!)
    expect(front.length).toBeGreaterThan(5)
    expect(variants.filter(({ figures }) => figures?.solvedN !== undefined)).toEqual(front)
    // Each of them once, and nothing else about it changed.
    expect(
      solvedOnes()
        .map(({ variant }) => variant.join())
        .sort(),
    ).toEqual(front.map(({ choices }) => choices.join()).sort())
    for (const { figures, choices } of front) {
      const [walls, density] = [2 + choices[1]!, 5 + 5 * choices[2]!]
      expect(figures).toMatchObject({ strength: 20 * walls + density, solvedN: 14 * walls + density })
    }
    const { id: cheap } = await begin({ objectives: [spec.objectives[0]!], limits: [], budget: 12 })
    await atRest(cheap)
    expect((await found(cheap)).filter(({ figures }) => figures?.solvedN !== undefined)).toEqual([])
  })

  it('finds the same for the same seed on one thread and on three', async () => {
    const { id } = await begin()
    await atRest(id)
    const wanted = await found(id)
    for (const lanes of [1, 3]) {
      const runner = server.runnerOn(inProcess(lanes))
      const again = await server.searches.create(spec)
      runner.enqueue(again.id)
      await atRest(again.id)
      await runner.close()
      expect(await found(again.id)).toEqual(wanted)
    }
  })

  it('broken off with the server and taken up by the next one, ends as one that ran through, evaluating nothing twice', async () => {
    const whole = await begin()
    await atRest(whole.id)
    const seen: Variant[] = []
    const first = server.runnerOn(inProcess(2, seen))
    const broken = await server.searches.create(spec)
    first.enqueue(broken.id)
    while (seen.length < 37) await new Promise((resolve) => setImmediate(resolve))
    await first.close()
    expect((await server.searches.get(broken.id)).state).toBe('running')
    expect((await found(broken.id)).length).toBeLessThan(90)

    const next = server.runnerOn(inProcess(2, seen))
    await next.resumeUnfinished()
    expect((await atRest(broken.id)).state).toBe('done')
    await next.close()
    expect(await found(broken.id)).toEqual(await found(whole.id))
    expect(seen.length).toBe(90)
  })

  it('pauses, resumes and is ended; what it found stays', async () => {
    const seen: Variant[] = []
    const runner = server.runnerOn(inProcess(2, seen))
    const { id } = await server.searches.create(spec)
    runner.enqueue(id)
    while (seen.length < 20) await new Promise((resolve) => setImmediate(resolve))
    await runner.pause(id)
    expect((await server.searches.get(id)).state).toBe('paused')
    const kept = (await found(id)).length
    expect(kept).toBeGreaterThanOrEqual(20)
    expect(kept).toBeLessThan(90)
    await runner.resume(id)
    while (seen.length < kept + 10) await new Promise((resolve) => setImmediate(resolve))
    await runner.cancel(id)
    expect((await server.searches.get(id)).state).toBe('cancelled')
    expect((await found(id)).length).toBeGreaterThan(kept)
    await runner.resume(id)
    expect((await server.searches.get(id)).state).toBe('cancelled')
    await runner.close()
  })

  it('tells as it goes on, beginning with what is known', async () => {
    const runner = server.runnerOn(inProcess(2))
    const { id } = await server.searches.create(spec)
    const events: SearchEvent[] = []
    const leave = await runner.watch(id, (event) => events.push(event as SearchEvent))
    runner.enqueue(id)
    await atRest(id)
    await runner.close()
    leave()
    expect(events[0]).toMatchObject({ search: { state: 'waiting', done: 0 }, fresh: [] })
    expect(events.at(-1)!.search.state).toBe('done')
    const told = events.flatMap(({ fresh }) => fresh.map(({ position }) => position))
    // What is solved in the end is told once more.
    expect(told.slice(0, 90).sort((a, b) => a - b)).toEqual([...Array(90).keys()])
    expect(told.length).toBeGreaterThan(90)
    let late: SearchEvent | undefined
    await runner.watch(id, (event) => {
      late = event as SearchEvent
    })
    expect(late!.fresh.length).toBe(90)
  })

  it('refuses what cannot be searched, saying what and where', async () => {
    const refused = async (change: object): Promise<string> => {
      const { body, status } = await api()
        .post('/api/searches')
        .set(local)
        .send({ ...spec, ...change })
      expect(status).toBeGreaterThanOrEqual(400)
      expect(body.remedy).not.toBe('')
      return body.detail
    }
    expect(await refused({ dimensions: [] })).toMatch(/let vary/)
    expect(await refused({ dimensions: [{ kind: 'setting', name: 'layerHeight', values: [9] }] })).toMatch(/ayer height/)
    expect(await refused({ dimensions: [spec.dimensions[0], spec.dimensions[0]] })).toMatch(/twice/)
    expect(await refused({ dimensions: [{ kind: 'nozzle', keys: ['bore-7'] }] })).toMatch(/nozzle "bore-7"/)
    await api().get(`/api/searches/${crypto.randomUUID()}/events`).set(local).expect(404)
  })

  it('stands in the history of jobs, newest first, and tells there how it ended', async () => {
    const { id } = await begin({ budget: 12 })
    await atRest(id)
    const { body } = await api().get('/api/jobs').set(local).expect(200)
    const jobs = jobListSchema.parse(body)
    expect(jobs[0]).toMatchObject({ id, kind: 'search', state: 'done', done: 12, of: 12 })
    expect(jobs.map(({ createdAt }) => createdAt)).toEqual(
      jobs
        .map(({ createdAt }) => createdAt)
        .sort()
        .reverse(),
    )
  })

  it('is removed with its variants and its job, also with its lineup', async () => {
    const isGone = async (id: string): Promise<void> => {
      expect(await server.models.searchVariants.count({ where: { searchId: id } })).toBe(0)
      expect(await server.models.searches.count({ where: { id } })).toBe(0)
      expect(await server.models.jobs.count({ where: { id } })).toBe(0)
    }
    const { id } = await begin({ budget: 12 })
    await atRest(id)
    expect(await server.models.searchVariants.count({ where: { searchId: id } })).toBe(12)
    await api().delete(`/api/searches/${id}`).set(local).expect(204)
    await isGone(id)

    const { id: _, revision: __, demo: ___, updatedAt: ____, ...content } = await server.lineups.get(spec.lineupId)
    const candidates = content.candidates.map((candidate) => ({ ...candidate, id: crypto.randomUUID() }))
    const lineup = await server.lineups.create({ ...content, candidates })
    const own = await begin({ lineupId: lineup.id, budget: 12 })
    await atRest(own.id)
    await server.lineups.remove(lineup.id)
    await isGone(own.id)
  })
})
