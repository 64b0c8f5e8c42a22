import type { RequestHandler } from 'express'
import { ProblemError } from '../problems'

/**
 * Lets in only requests that were meant for this server on this machine: a foreign page could otherwise reach it through
 * the browser, by a name that resolves to loopback or by a form sent across.
 */
export function checkOrigin(port: number): RequestHandler {
  const hosts = new Set(['localhost', '127.0.0.1', '[::1]'].map((name) => `${name}:${port}`))
  return (request, _response, next) => {
    const { host, origin } = request.headers
    if (host === undefined || !hosts.has(host)) {
      throw new ProblemError(
        421,
        'foreign-host',
        'This server answers only under its own name.',
        host ?? '',
        `Open http://localhost:${port}.`,
      )
    }
    if (origin !== undefined && !hosts.has(origin.replace(/^https?:\/\//, ''))) {
      throw new ProblemError(
        403,
        'foreign-origin',
        'A page from elsewhere may not use this server.',
        origin,
        `Open http://localhost:${port} itself.`,
      )
    }
    next()
  }
}
