import type { Problem } from '@sable/contract/problem'
import { InputError } from '@sable/core/units/errors'
import express, { type NextFunction, type Request, type RequestHandler, type Response } from 'express'
import { BaseError, ConnectionError, ForeignKeyConstraintError, TimeoutError } from 'sequelize'
import type { z } from 'zod'
import { hasCollided } from '../database/transact'

/** An error that has an answer: status, sentence, place and way out. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly where: string,
    readonly remedy: string,
    readonly current?: unknown,
    readonly headers: Readonly<Record<string, string>> = {},
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
    undefined,
    { 'Retry-After': '2' },
  )

export const tooLarge = (what: string, bytes: number): ProblemError =>
  new ProblemError(
    413,
    'too-large',
    `${what} is larger than ${bytes >= MEGABYTE ? `${bytes / MEGABYTE} MB` : `${bytes / 1024} kB`}.`,
    '',
    what === 'The file' ? 'Reduce the mesh, or save it as a binary STL.' : 'Send less at once.',
    undefined,
    // What is still to come is not read.
    { Connection: 'close' },
  )
const MEGABYTE = 2 ** 20

/** Lets a request on only when its body is of one of these kinds. */
export const refuseOtherTypes =
  (...types: string[]): RequestHandler =>
  (request, _response, next) => {
    if (request.is(types) === false)
      throw new ProblemError(
        415,
        'other-type',
        `Only ${types.join(' or ')} can be sent here.`,
        request.headers['content-type'] ?? 'no Content-Type',
        'Say in Content-Type what is sent.',
      )
    next()
  }

/** Reads a body of JSON and nothing else. @param limit bytes */
export function jsonBody(limit: number): RequestHandler {
  const check = refuseOtherTypes('application/json')
  const parse = express.json({ limit })
  return (request, response, next) => check(request, response, () => parse(request, response, next))
}

export const unreadableRecord = (what: string, name: string, why: string): ProblemError =>
  new ProblemError(
    422,
    'unreadable-record',
    `This ${what} was stored in a way that this version cannot read (${why}).`,
    name,
    'It is set aside: look under Shelf, Set aside, where what is stored can be saved and removed.',
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
  if (error instanceof ProblemError) return asSent(error, error.message)
  if (isInputError(error)) {
    const { code, message, where, remedy } = error
    return asSent({ status: 422, code, message, where, remedy }, 'This cannot be used')
  }
  if (error instanceof ForeignKeyConstraintError) return asProblem(referenceBroken(error))
  if (hasCollided(error)) return asProblem(collided())
  if (isDatabaseAway(error)) return asProblem(databaseAway())
  if (isDiskFull(error)) return asProblem(diskFull())
  const refused = error as { status?: unknown; type?: unknown; limit?: unknown }
  if (refused.type === 'entity.too.large') return asProblem(tooLarge('The request', Number(refused.limit)))
  const status = statusOf(error)
  if (status === 404) return asProblem(noSuchAddress(''))
  if (status !== undefined)
    return asSent(
      {
        status,
        code: 'unreadable',
        // What the parser of a body says is about the body; any other text may tell of the machine.
        message: refused.type === 'entity.parse.failed' && error instanceof Error ? error.message : 'The request cannot be read.',
        where: '',
        remedy: 'Reload the page and try again.',
      },
      'The request cannot be read',
    )
  return asSent(
    {
      status: 500,
      code: 'internal',
      message: 'The server met an error it does not know.',
      where: '',
      remedy: 'Try again; the details are in the terminal where it was started.',
    },
    'Something went wrong',
  )
}

type Told = Pick<ProblemError, 'status' | 'code' | 'message' | 'where' | 'remedy'> & { readonly current?: unknown }

const asSent = ({ status, code, message, where, remedy, current }: Told, title: string): Problem => ({
  type: 'about:blank',
  title,
  status,
  detail: message,
  code,
  where,
  remedy,
  ...(current === undefined ? {} : { current }),
})

/**
 * Whether an error means that the database is gone, went away in the middle, or does not answer: whatever the driver calls it,
 * such an error ends its connection.
 */
function isDatabaseAway(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof TimeoutError) return true
  const { name, parent, cause, message } = error as Partial<Record<string, unknown>>
  // Sequelize repeats the words of the driver's error that it wraps.
  if (error instanceof BaseError && parent instanceof Error) return saysGone(parent)
  if ((error instanceof BaseError || name === 'SqlError') && saysGone(error as Error)) return true
  // What is said about a transaction that ended with its connection.
  if (typeof message === 'string' && /connection manager was closed|Transaction cannot be (rolled back|committed)/.test(message))
    return true
  return cause instanceof Error && isDatabaseAway(cause)
}

/**
 * What MariaDB itself answers is judged by its code alone; errors of the driver and of sockets by their words, too, without the
 * statement that they end with: that holds whatever somebody typed.
 */
function saysGone(error: Error): boolean {
  const { fatal, code, errno } = error as Error & { fatal?: unknown; code?: unknown; errno?: unknown }
  const isAnswer = typeof errno === 'number' && errno >= 1000 && errno < 5000
  return fatal === true || GONE.test(isAnswer ? String(code) : `${code} ${error.message.split('\nsql:')[0]}`)
}
const GONE = /ECONN|ENOENT|EPIPE|ENOTCONN|ESHUTDOWN|ER_SERVER_SHUTDOWN|SOCKET|closed|time(d )?out|lost/i

/** Whether the disk has no room: told by the system, or by MariaDB (1021 disk full, 1114 table full, 1030 with the system's 28). */
function isDiskFull(error: unknown): boolean {
  const { code, errno, parent, message } = error as { code?: unknown; errno?: unknown; parent?: unknown; message?: unknown }
  if (code === 'ENOSPC' || code === 'EDQUOT' || errno === 1021 || errno === 1114) return true
  if (errno === 1030 && /\b28\b|No space left/.test(String(message))) return true
  return parent instanceof Error && isDiskFull(parent)
}

const diskFull = (): ProblemError =>
  new ProblemError(
    507,
    'disk-full',
    'The disk is full: nothing more can be stored.',
    '',
    'Free some room, then try again; what is stored is safe.',
  )

/** A record that is deleted while something takes it, or taken while it is deleted. */
function referenceBroken(error: ForeignKeyConstraintError): ProblemError {
  const table = String(error.table ?? 'record')
  return (error.parent as { errno?: number }).errno === 1451
    ? new ProblemError(409, 'record-in-use', 'This is in use.', table, 'Choose another one where it is used, then try again.')
    : new ProblemError(
        422,
        'record-unknown',
        'Something that this names is not there any more.',
        table,
        'Reload the page and choose another one.',
      )
}

const collided = (): ProblemError =>
  new ProblemError(409, 'collided', 'Others changed the same thing at the same moment.', '', 'Try again.', undefined, {
    'Retry-After': '1',
  })

export const noSuchAddress = (where: string): ProblemError =>
  new ProblemError(404, 'no-such-address', 'There is nothing at this address.', where, 'Check the address.')

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
  // Who asked has left: that is no error of the server's.
  const isLeft = error instanceof Error && error.name === 'AbortError'
  if (problem.status === 500 && !isLeft) console.error(error)
  if (response.headersSent) {
    response.end()
    return
  }
  if (error instanceof ProblemError) response.set(error.headers)
  else if (problem.status === 503) response.set('Retry-After', '2')
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}
