import { type ChildProcess, spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { FoundVariant, SearchSpec } from '@sable/contract/search'
import { limitsOf } from '@sable/core/search/figures'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { startRedis } from '../../testing/startRedis'
import type { OpenLanes } from '../lanes'
import { lanesOfThreads } from '../threads'
import { lanesThroughQueue } from './lanesThroughQueue'

const root = fileURLToPath(new URL('../../../', import.meta.url))
const built = (file: string): string => join(root, 'dist/server', file)

let server: OpenServer
let redis: Awaited<ReturnType<typeof startRedis>>
let spec: SearchSpec
const workers: ChildProcess[] = []

beforeAll(async () => {
  // Threads and workers run what is built.
  // @ts-expect-error the scripts are plain JavaScript, so that they run before any package is there
  const { build } = await import('../../../scripts/build.mjs')
  await build(['server'])
  redis = await startRedis()
  server = await openServer('queue_tests')
  // The lightest of the demo's parts: what is looked at here is the queue.
  const listed = (await server.lineups.list()).find(({ name }) => name.startsWith('Bumper foot'))
  const { partId, placement, purpose, candidates } = await server.lineups.get(listed!.id)
  spec = {
    lineupId: listed!.id,
    partId,
    placement,
    purpose,
    base: candidates[0]!,
    dimensions: [
      { kind: 'setting', name: 'layerHeight', values: [0.24, 0.28, 0.32] },
      { kind: 'setting', name: 'wallCount', values: [2, 3, 13] },
      { kind: 'setting', name: 'infillDensity', values: [10, 20] },
      { kind: 'setting', name: 'outerWallSpeed', values: [40, 60, 80] },
    ],
    objectives: [
      { figure: 'time', better: 'less' },
      // Not strength: its front would be solved in the end, and what is looked at here is the queue.
      { figure: 'filament', better: 'less' },
    ],
    limits: limitsOf(purpose).filter(({ figure }) => figure !== 'strength'),
    budget: 12,
    seed: 7,
  }
})
afterAll(async () => {
  for (const worker of workers) worker.kill('SIGKILL')
  await server?.close()
  await redis?.stop()
})

const startWorker = (): ChildProcess => {
  const worker = spawn(process.execPath, [built('app/worker.js')], {
    env: { ...process.env, SABLE_QUEUE: redis.url, SABLE_WORKER_LANES: '1' },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  workers.push(worker)
  return worker
}

/** Runs the search to its end; told of every progress. */
async function search(lanes: OpenLanes, onProgress: (done: number) => void = () => {}): Promise<readonly FoundVariant[]> {
  const runner = server.runnerOn(lanes)
  const { id } = await server.searches.create(spec)
  const leave = await runner.watch(id, (event) => onProgress((event as { search: { done: number } }).search.done))
  runner.enqueue(id)
  for (;;) {
    const { state, problem } = await server.searches.get(id)
    if (state !== 'waiting' && state !== 'running') {
      expect(problem).toBeUndefined()
      expect(state).toBe('done')
      break
    }
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  leave()
  await runner.close()
  return server.searches.variants(id)
}

describe('a seeded search', () => {
  it('finds the same on one thread, on two, and through a queue with three workers of which one is killed', async () => {
    const threads = (count: number) => lanesOfThreads(built('app/unitThread.js'), count)
    const wanted = await search(threads(1))
    expect(wanted).toHaveLength(12)
    expect(await search(threads(2))).toEqual(wanted)

    const [first] = [startWorker(), startWorker(), startWorker()]
    let isKilled = false
    const found = await search(lanesThroughQueue(redis.url), (done) => {
      if (done === 0 || isKilled) return
      isKilled = true
      first!.kill('SIGKILL')
    })
    expect(isKilled).toBe(true)
    expect(first!.exitCode ?? first!.signalCode).toBe('SIGKILL')
    expect(found).toEqual(wanted)
  })

  it('that no worker takes up can be paused, leaves nothing in the queue, and goes on when there is one', async () => {
    for (const worker of workers) {
      if (worker.exitCode !== null || worker.signalCode !== null) continue
      worker.kill('SIGTERM')
      await once(worker, 'exit')
    }
    const runner = server.runnerOn(lanesThroughQueue(redis.url))
    const { id } = await server.searches.create(spec)
    runner.enqueue(id)
    await new Promise((resolve) => setTimeout(resolve, 1000))
    await runner.pause(id)
    expect(await server.searches.get(id)).toMatchObject({ state: 'paused', done: 0 })
    startWorker()
    await runner.resume(id)
    while ((await server.searches.get(id)).state !== 'done') await new Promise((resolve) => setTimeout(resolve, 50))
    expect(await server.searches.variants(id)).toHaveLength(12)
    await runner.close()
  })
})
