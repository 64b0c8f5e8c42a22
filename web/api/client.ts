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

/** Fetches JSON and checks its shape. @throws RequestError */
export async function fetchJson<T>(schema: z.ZodType<T>, path: string, init: RequestInit = {}): Promise<T> {
  const response = await send(path, init)
  return schema.parse(await response.json())
}

/** Sends a request and gives the answer when it is a good one. @throws RequestError */
export async function send(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response
  try {
    response = await fetch(path, init)
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error
    throw new RequestError(away)
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
