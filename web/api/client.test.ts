import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { z } from 'zod'
import { fetchJson, RequestError, send } from './client'

/** A server that takes a request and never answers; it ends only when the page gives it up. */
const hangs = (_path: string, { signal }: RequestInit): Promise<Response> =>
  new Promise((_, reject) => signal?.addEventListener('abort', () => reject(new DOMException('given up', 'AbortError'))))

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** What a request comes to once so much time has passed. */
async function after(ms: number, asked: Promise<unknown>): Promise<unknown> {
  const seen = vi.fn()
  void asked.then(seen, seen)
  await vi.advanceTimersByTimeAsync(ms)
  return seen.mock.calls[0]?.[0]
}

describe('a server that hangs', () => {
  beforeEach(() => vi.stubGlobal('fetch', hangs))

  it('is told as such after ten seconds, and not before', async () => {
    expect(await after(9900, send('/api/lineups'))).toBeUndefined()
    const told = (await after(10_100, fetchJson(z.unknown(), '/api/lineups'))) as RequestError
    expect(told).toBeInstanceOf(RequestError)
    expect(told.problem).toMatchObject({ code: 'server-silent', status: 0, remedy: expect.stringContaining('Nothing you typed is lost') })
  })

  it('is waited for where an answer may take long', async () => {
    expect(await after(600_000, send('/api/parts', { patienceMs: Number.POSITIVE_INFINITY }))).toBeUndefined()
  })

  it('is given up at once when the page asks no more', async () => {
    const given = new AbortController()
    const asked = after(10, send('/api/parts', { signal: given.signal }))
    given.abort()
    expect(await asked).toMatchObject({ name: 'AbortError' })
  })
})

it('a server that is away is told at once', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('Failed to fetch')))
  expect(((await after(1, send('/api/lineups'))) as RequestError).problem.code).toBe('server-away')
})
