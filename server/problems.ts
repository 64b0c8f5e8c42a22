import type { Problem } from '@sable/contract/problem'
import { InputError } from '@sable/core/errors'
import type { NextFunction, Request, Response } from 'express'
import { BaseError, ConnectionError } from 'sequelize'
import type { z } from 'zod'

/** An error that has an answer: status, sentence, place and way out. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly where: string,
    readonly remedy: string,
    readonly current?: unknown,
  ) {
    super(message)
  }
}

export const notFound = (what: string, id: string): ProblemError =>
  new ProblemError(404, 'not-found', `There is no such ${what}.`, id, 'It may have been removed in another window: reload the page.')

export const databaseAway = (): ProblemError =>
  new ProblemError(
    503,
    'database-away',
    'The database does not answer just now.',
    '',
    'Nothing you typed is lost: it is saved as soon as the database is back.',
  )

/** Checks what a request brings. @throws ProblemError 400 naming the field */
export function parseRequest<T>(schema: z.ZodType<T>, body: unknown): T {
  const parsed = schema.safeParse(body)
  if (parsed.success) return parsed.data
  const [issue] = parsed.error.issues
  throw new ProblemError(
    400,
    'malformed',
    issue?.message ?? 'The request has the wrong shape.',
    issue?.path.join('.') ?? '',
    'Reload the page; if it happens again, the page is older than the server.',
  )
}

/** Turns whatever was thrown into a problem of RFC 9457. */
export function asProblem(error: unknown): Problem {
  const build = (
    status: number,
    title: string,
    code: string,
    detail: string,
    where: string,
    remedy: string,
    current?: unknown,
  ): Problem => ({
    type: 'about:blank',
    title,
    status,
    detail,
    code,
    where,
    remedy,
    ...(current === undefined ? {} : { current }),
  })
  if (error instanceof ProblemError)
    return build(error.status, error.message, error.code, error.message, error.where, error.remedy, error.current)
  if (isInputError(error)) return build(422, 'This cannot be used', error.code, error.message, error.where, error.remedy)
  if (error instanceof ConnectionError || (error instanceof BaseError && /ECONN|ENOENT|closed|timeout/i.test(error.message))) {
    return asProblem(databaseAway())
  }
  const status = statusOf(error)
  if (status === 413)
    return build(413, 'Too large', 'too-large', 'The file is larger than 64 MB.', '', 'Reduce the mesh, or save it as a binary STL.')
  if (status !== undefined)
    return build(
      status,
      'The request cannot be read',
      'unreadable',
      error instanceof Error ? error.message : '',
      '',
      'Reload the page and try again.',
    )
  return build(
    500,
    'Something went wrong',
    'internal',
    'The server met an error it does not know.',
    '',
    'Try again; the details are in the terminal where it was started.',
  )
}

/** Errors that crossed from a worker thread have lost their class but kept their name. */
function isInputError(error: unknown): error is InputError {
  return error instanceof InputError || (error instanceof Error && error.name === 'InputError' && 'code' in error && 'remedy' in error)
}

function statusOf(error: unknown): number | undefined {
  const status = typeof error === 'object' && error !== null && 'status' in error ? Number(error.status) : Number.NaN
  return status >= 400 && status < 500 ? status : undefined
}

export function answerProblem(error: unknown, _request: Request, response: Response, _next: NextFunction): void {
  const problem = asProblem(error)
  if (problem.status === 500) console.error(error)
  if (response.headersSent) {
    response.end()
    return
  }
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}
