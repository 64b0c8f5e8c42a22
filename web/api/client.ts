import { type Problem, problemSchema } from '@sable/contract/problem'
import type { z } from 'zod'

/** The server refused; carries its sentence, place and way out. */
export class RequestError extends Error {
  override readonly name = 'RequestError'
  constructor(readonly problem: Problem) {
    super(problem.detail)
  }
}

const away: Problem = {
  type: 'about:blank',
  title: 'The server does not answer',
  status: 0,
  detail: 'The server does not answer.',
  code: 'server-away',
  where: '',
  remedy: 'Nothing you typed is lost. Start it again with npm start; this page tries again by itself.',
}

/** A server that says nothing for so long hangs, ms. */
const PATIENCE_MS = 10_000
const silent: Problem = {
  ...away,
  title: 'The server does not answer',
  detail: `The server has not answered for ${PATIENCE_MS / 1000} s.`,
  code: 'server-silent',
  remedy:
    'Nothing you typed is lost. If it stays so, end it with Ctrl-C and start it again with npm start; this page tries again by itself.',
}

/** How long an answer may take, ms; without end for what is sent for long. */
interface Patience {
  readonly patienceMs?: number
}

/** Fetches JSON and checks its shape. @throws RequestError */
export async function fetchJson<T>(schema: z.ZodType<T>, path: string, init: RequestInit & Patience = {}): Promise<T> {
  const response = await send(path, init)
  return schema.parse(await response.json())
}

/** Sends a request and gives the answer when it is a good one. @throws RequestError */
export async function send(path: string, { patienceMs = PATIENCE_MS, ...init }: RequestInit & Patience = {}): Promise<Response> {
  let response: Response
  const patience = new AbortController()
  const timer = patienceMs < Infinity ? setTimeout(() => patience.abort(), patienceMs) : undefined
  try {
    response = await fetch(path, { ...init, signal: init.signal ? AbortSignal.any([init.signal, patience.signal]) : patience.signal })
  } catch (error) {
    if (patience.signal.aborted) throw new RequestError(silent)
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new RequestError(away)
  } finally {
    clearTimeout(timer)
  }
  if (response.ok) return response
  const problem = problemSchema.safeParse(await response.json().catch(() => undefined))
  throw new RequestError(
    problem.success ? problem.data : { ...away, status: response.status, detail: `The server answered ${response.status}.` },
  )
}

export const asJsonBody = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
})
