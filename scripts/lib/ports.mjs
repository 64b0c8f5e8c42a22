import { createServer as createHttpServer } from 'node:http'
import { createServer } from 'node:net'

const STARTING = `<!doctype html><meta charset="utf-8"><meta http-equiv="refresh" content="2"><title>Sable Lantern</title>
<body style="background:#17130f;color:#e9e2d6;font:16px sans-serif;padding:3rem">Sable Lantern is starting. This page goes on by itself.`

/** A port on loopback that is held until it is released, or undefined where another program has it. */
export const holdPort = (port) => hold(createServer(), port)

/** The same for a port of pages: whoever comes too early is asked to wait. */
export const holdPagePort = (port) =>
  hold(
    createHttpServer((_request, response) => {
      response.writeHead(503, { 'Content-Type': 'text/html', 'Retry-After': '2', 'Cache-Control': 'no-store', Connection: 'close' })
      response.end(STARTING)
    }),
    port,
  )

function hold(server, port) {
  return new Promise((resolve) => {
    server.once('error', () => resolve(undefined))
    server.listen(port, '127.0.0.1', () =>
      resolve({
        port,
        release: () =>
          new Promise((done) => {
            server.close(done)
            server.closeAllConnections?.()
          }),
      }),
    )
  })
}
