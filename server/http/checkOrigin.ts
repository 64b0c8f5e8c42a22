import type { RequestHandler } from 'express'
import { ProblemError } from './problems'

const READS = new Set(['GET', 'HEAD', 'OPTIONS'])

/**
 * Lets in only requests that were meant for this server on this machine: a foreign page could otherwise reach it through
 * the browser, by a name that resolves to loopback or by a form sent across.
 */
export function checkOrigin(port: number): RequestHandler {
  const hosts = new Set(['localhost', '127.0.0.1', '[::1]'].map((name) => `${name}:${port}`))
  return (request, _response, next) => {
    const { host, origin } = request.headers
    // Of several names Node keeps the first; what stands in between may have looked at another one.
    const named = request.rawHeaders.filter((text, i) => i % 2 === 0 && text.toLowerCase() === 'host').length
    if (host === undefined || named !== 1 || !hosts.has(host)) {
      throw new ProblemError(
        421,
        'foreign-host',
        'This server answers only under its own name.',
        host ?? '',
        `Open http://localhost:${port}.`,
      )
    }
    // A browser tells where a write comes from by one of two headers; what sends neither is no browser.
    const site = request.headers['sec-fetch-site']
    const isForeign =
      origin !== undefined
        ? !hosts.has(origin.replace(/^https?:\/\//, ''))
        : !READS.has(request.method) && site !== undefined && site !== 'same-origin' && site !== 'none'
    if (isForeign) {
      throw new ProblemError(
        403,
        'foreign-origin',
        'A page from elsewhere may not use this server.',
        origin ?? String(site),
        `Open http://localhost:${port} itself.`,
      )
    }
    next()
  }
}
