import { createServer, type Socket } from 'node:net'
import { FILAMENT_MM2, type Machine } from './printer/machine'
import { normalBy, seededBy } from './random'

/** Density of what is on the reel, g/mm³; a usual one. */
const DENSITY = 1.24e-3
/** It shows whole tenths, wanders by a gram or so from reading to reading, and drifts slowly, g. */
const [NOISE_G, DRIFT_G] = [0.4, 0.5]
const EVERY_MS = 200

export interface StandinScale {
  readonly port: number
  readonly close: () => Promise<void>
}

/** What hangs on a reel after a machine has taken from it, g. */
export const reelLeft = (grossG: number, { layers, truth }: Pick<Machine, 'layers' | 'truth'>): number =>
  grossG - layers.reduce((sum, { feed }) => sum + feed, 0) * FILAMENT_MM2 * DENSITY * truth.flowFactor

/**
 * A kitchen scale on which the reel of a machine lies: a line of text a reading, as such instruments send.
 *
 * @param grossG of the reel before the machine took anything
 */
export async function serveScale({
  seed,
  port,
  grossG,
  machine,
}: {
  readonly seed: number
  readonly port: number
  readonly grossG: number
  readonly machine: Machine
}): Promise<StandinScale> {
  const random = seededBy(seed)
  const drift = DRIFT_G * normalBy(random)
  const sockets = new Set<Socket>()
  const server = createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => {})
    const timer = setInterval(() => {
      const grams = reelLeft(grossG, machine) + drift + NOISE_G * normalBy(random)
      socket.write(`ST,GS, ${grams.toFixed(1).padStart(7)} g\r\n`)
    }, EVERY_MS)
    socket.on('close', () => {
      clearInterval(timer)
      sockets.delete(socket)
    })
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
