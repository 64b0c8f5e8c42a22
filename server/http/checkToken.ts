import { createHash, timingSafeEqual } from 'node:crypto'
import { parse, serialize } from 'cookie'
import type { RequestHandler } from 'express'
import { ProblemError } from './problems'

/**
 * Lets in only who knows the desk's token, for machines that others use too: anybody there can reach a port on loopback. The
 * token stands in the address that the start prints; once opened, a cookie holds it.
 *
 * @param token nothing where everybody on this machine is let in
 */
export function checkToken(token: string | undefined, port: number): RequestHandler {
  if (token === undefined) return (_request, _response, next) => next()
  // Cookies are shared between the ports of a name.
  const cookieName = `sable-${port}`
  return (request, response, next) => {
    const given = request.query.token
    if (typeof given === 'string' && isSame(given, token)) {
      response.set('Set-Cookie', serialize(cookieName, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 365 * 24 * 3600 }))
      if (request.method === 'GET' && !request.path.startsWith('/api/')) {
        // The token does not stay in the address, where it would be seen and shared.
        response.set('Cache-Control', 'no-store').redirect(303, request.path)
        return
      }
      next()
      return
    }
    if (isSame(parse(request.headers.cookie ?? '')[cookieName] ?? '', token)) {
      next()
      return
    }
    if (request.method === 'GET' && !request.path.startsWith('/api/') && request.accepts(['json', 'html']) === 'html') {
      response.status(401).type('html').send(PRIVATE)
      return
    }
    throw new ProblemError(
      401,
      'token-missing',
      'This desk is private.',
      '',
      'Open the address that npm start printed: it holds the key to it.',
    )
  }
}

/** Told by itself: who has no key gets nothing of the application. */
const PRIVATE = `<!doctype html><meta charset="utf-8"><title>Sable Lantern</title>
<body style="background:#17130f;color:#e9e2d6;font:16px/1.5 sans-serif;padding:3rem;max-width:34rem">
<h1 style="font-size:20px">This desk is private</h1>
<p>Open the address that npm start printed: it holds the key to it.</p>`

/** Compares in a time that tells nothing about where the two differ. */
function isSame(a: string, b: string): boolean {
  const digest = (text: string): Buffer => createHash('sha256').update(text).digest()
  return timingSafeEqual(digest(a), digest(b))
}
