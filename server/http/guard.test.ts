import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { connect as connectTo } from 'node:net'
import express from 'express'
import request from 'supertest'
import { describe, expect, it } from 'vitest'
import { checkOrigin } from './checkOrigin'
import { checkToken } from './checkToken'
import { answerProblem, jsonBody, ProblemError } from './problems'

const PORT = 4997
const HOST = `localhost:${PORT}`

function app(token?: string) {
  const made = express()
  made.use(checkOrigin(PORT))
  made.use(checkToken(token, PORT))
  made.get(['/', '/api/thing'], (_request, response) => {
    response.json({ read: true })
  })
  made.post('/api/thing', jsonBody(1024), (request, response) => {
    response.json({ written: request.body })
  })
  made.get('/api/file', (_request, response) => {
    response.sendFile('/nowhere/secret/index.html')
  })
  made.use(answerProblem)
  return made
}

describe('a write', () => {
  const write = (headers: Record<string, string>) =>
    request(app())
      .post('/api/thing')
      .set({ Host: HOST, ...headers })
      .send({ a: 1 })

  it.each([
    [{}, 200],
    [{ Origin: `http://${HOST}` }, 200],
    [{ Origin: 'http://elsewhere.example' }, 403],
    [{ 'Sec-Fetch-Site': 'same-origin' }, 200],
    [{ 'Sec-Fetch-Site': 'none' }, 200],
    [{ 'Sec-Fetch-Site': 'cross-site' }, 403],
    [{ 'Sec-Fetch-Site': 'same-site' }, 403],
    [{ Host: 'elsewhere.example' }, 421],
  ])('with %o is answered %i', async (headers, status) => expect((await write(headers as Record<string, string>)).status).toBe(status))

  it('under two names is refused', async () => {
    const server = app().listen(0, '127.0.0.1')
    await once(server, 'listening')
    const answer = await new Promise<string>((resolve) => {
      const socket = connectTo((server.address() as AddressInfo).port, '127.0.0.1', () =>
        socket.write(`GET /api/thing HTTP/1.1\r\nHost: ${HOST}\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n`),
      )
      let text = ''
      socket.on('data', (piece) => {
        text += piece
      })
      socket.on('close', () => resolve(text))
    })
    server.close()
    expect(answer).toMatch(/^HTTP\/1\.1 4(00|21)/)
  })

  it('of another kind than JSON is refused, and so is one that is too long, with the limit', async () => {
    const typed = await request(app()).post('/api/thing').set('Host', HOST).type('text/plain').send('{"a":1}')
    expect(typed.body).toMatchObject({ status: 415, code: 'other-type' })
    const long = await write({}).send({ a: 'x'.repeat(5000) })
    expect(long.body).toMatchObject({ status: 413, detail: 'The request is larger than 1 kB.' })
  })
})

describe('an error', () => {
  it('of a file that is not there tells no path of the machine', async () => {
    const { status, text } = await request(app()).get('/api/file').set('Host', HOST)
    expect(status).toBe(404)
    expect(text).not.toContain('nowhere')
  })
  it('that is known says what to do', () => expect(new ProblemError(409, 'a', 'b.', '', 'c.').headers).toEqual({}))
})

describe('a private desk', () => {
  const desk = app('0123456789abcdef')
  const get = (path: string) => request(desk).get(path).set('Host', HOST)

  it('lets nobody in without its token, neither to read nor to write', async () => {
    expect((await get('/api/thing')).body).toMatchObject({ status: 401, remedy: expect.stringContaining('npm start printed') })
    expect((await get('/')).status).toBe(401)
    expect((await get('/?token=0123456789abcdee')).status).toBe(401)
    expect((await request(desk).post('/api/thing').set('Host', HOST).send({})).status).toBe(401)
  })

  it('takes the token from the address once, and then from a cookie that no script and no other page can use', async () => {
    const first = await get('/?token=0123456789abcdef')
    expect(first.status).toBe(303)
    expect(first.headers.location).toBe('/')
    const [cookie] = first.headers['set-cookie'] as unknown as [string]
    expect(cookie).toMatch(/^sable-4997=0123456789abcdef;.*HttpOnly.*SameSite=Strict/)
    expect((await get('/api/thing').set('Cookie', cookie.split(';')[0]!)).status).toBe(200)
    expect((await get('/api/thing').set('Cookie', 'sable-4997=wrong')).status).toBe(401)
  })
})
