import type { StoredQueue } from '@sable/contract/queues'
import { describe, expect, it } from 'vitest'
import { RequestError } from '../api/client'
import { writeMerged } from './writeMerged'

const queue = (more: Partial<StoredQueue> = {}): StoredQueue => ({
  id: '3f1c1a52-3b0a-4a43-9a26-0d5b1a6d7a01',
  changedAt: '2026-11-28T10:00:00.000Z',
  revision: 1,
  name: 'fair',
  machines: [],
  hours: [],
  reels: [],
  jobs: [],
  ...more,
})
const changed = (): RequestError =>
  new RequestError({
    type: 'about:blank',
    title: 'changed',
    status: 409,
    code: 'queue-changed',
    detail: 'It was changed.',
    where: '',
    remedy: 'Again.',
  } as never)

/** A server that keeps one queue, as another window may change it in between. */
function serverWith(kept: StoredQueue) {
  let now = kept
  return {
    get kept() {
      return now
    },
    elsewhere(more: Partial<StoredQueue>) {
      now = { ...now, ...more, revision: now.revision + 1 }
    },
    list: async () => [now],
    write: async (next: StoredQueue) => {
      if (next.revision !== now.revision) throw changed()
      now = { ...next, revision: next.revision + 1 }
      return [now]
    },
  }
}

describe('a change of a queue in two windows', () => {
  it('is made to what the other one left, and both stand', async () => {
    const server = serverWith(queue())
    const mine = server.kept
    server.elsewhere({ name: 'fair on Sunday' })
    const { wasChanged } = await writeMerged(
      mine,
      (content) => ({ ...content, hours: [{ days: [5], from: '09:00', to: '17:00' }] }),
      server,
    )
    expect(wasChanged).toBe(true)
    expect(server.kept).toMatchObject({ name: 'fair on Sunday', hours: [{ days: [5] }], revision: 3 })
  })

  it('needs nothing of that where nobody else was there', async () => {
    const server = serverWith(queue())
    expect((await writeMerged(server.kept, (content) => ({ ...content, name: 'mine' }), server)).wasChanged).toBe(false)
  })

  it('is refused where the queue is gone, or another reason is told', async () => {
    const server = serverWith(queue())
    const mine = server.kept
    server.elsewhere({})
    await expect(writeMerged(mine, (content) => content, { ...server, write: server.write, list: async () => [] })).rejects.toThrow()
    const broken = { list: server.list, write: () => Promise.reject(new Error('away')) }
    await expect(writeMerged(mine, (content) => content, broken)).rejects.toThrow('away')
  })
})
