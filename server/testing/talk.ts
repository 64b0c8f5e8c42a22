import request from 'supertest'
import { type OpenServer, TEST_PORT } from './openServer'

/** Short ways to ask a server in a test, under the name that it answers to. */
export function talkTo(server: Pick<OpenServer, 'app'>) {
  const named = (method: 'get' | 'post' | 'put' | 'delete') => (path: string) =>
    request(server.app)[method](path).set('Host', `localhost:${TEST_PORT}`)
  const post = named('post')
  return {
    get: named('get'),
    post,
    put: named('put'),
    del: named('delete'),
    upload: (bytes: Uint8Array, fileName: string) =>
      post(`/api/parts?fileName=${encodeURIComponent(fileName)}`)
        .type('application/octet-stream')
        .send(Buffer.from(bytes)),
  }
}
