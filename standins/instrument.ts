import { createServer, type Socket } from 'node:net'

export interface StandinInstrument {
  readonly port: number
  readonly close: () => Promise<void>
}

/** Something that sends lines of text to whoever listens, on loopback. */
export async function listenOn(port: number, opened: (socket: Socket) => void): Promise<StandinInstrument> {
  const sockets = new Set<Socket>()
  const server = createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => {})
    socket.on('close', () => sockets.delete(socket))
    opened(socket)
  })
  await new Promise<void>((done, fail) => {
    server.once('error', fail)
    server.listen(port, '127.0.0.1', done)
  })
  const address = server.address()
  return {
    port: typeof address === 'object' && address ? address.port : port,
    close: () =>
      new Promise((done) => {
        for (const socket of sockets) socket.destroy()
        server.close(() => done())
      }),
  }
}
