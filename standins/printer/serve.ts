import { createServer, type Server, type Socket } from 'node:net'
import { type HiddenId, hiddenFaults } from '../hidden'
import { truthFrom } from '../truth'
import { Firmware } from './firmware'
import { Machine, type Mishap, usualLimits } from './machine'

const TICK_MS = 10
/** How strongly a hidden fault shows. */
const HOW_STRONG = 0.6
/** A line that never ends is no line. */
const LONGEST = 4096

export interface StandinPrinter {
  readonly port: number
  readonly machine: Machine
  /** Loses the next line on its way. */
  readonly loseLine: () => void
  readonly close: () => Promise<void>
}

/**
 * A simulated printer that listens on loopback and speaks G-code line by line.
 *
 * @param times how much faster its clock runs than the wall's
 */
export async function servePrinter({
  seed,
  port,
  times = 1,
  mishap,
  hidden,
}: {
  readonly seed: number
  readonly port: number
  readonly times?: number
  readonly mishap?: Mishap
  /** Wrong with it from the beginning. */
  readonly hidden?: HiddenId
}): Promise<StandinPrinter> {
  const truth = truthFrom(seed)
  const machine = new Machine(hidden === undefined ? truth : hiddenFaults[hidden].of(truth, HOW_STRONG), usualLimits, seed)
  machine.mishap = mishap
  let socket: Socket | undefined
  const send = (line: string): void => {
    socket?.write(`${line}\n`)
  }
  const firmware = new Firmware(machine, send)
  let before = performance.now()
  const timer = setInterval(() => {
    const now = performance.now()
    // Small steps: a heater that is asked after a minute has passed its goal.
    let left = ((now - before) / 1000) * times
    before = now
    while (left > 0) {
      const step = Math.min(0.5, left)
      firmware.advance(step)
      left -= step
    }
    if (machine.struck === 'pulledPlug' && socket) {
      machine.halt()
      socket.destroy()
      socket = undefined
    }
  }, TICK_MS)
  const server = createServer((opened) => {
    // One speaks at a time: who comes last is heard.
    socket?.destroy()
    socket = opened
    opened.setNoDelay(true)
    opened.on('error', () => {})
    let rest = ''
    opened.on('data', (bytes: Buffer) => {
      rest += bytes.toString('latin1')
      const lines = rest.split(/\r?\n/)
      rest = lines.pop()!
      if (rest.length > LONGEST) rest = ''
      for (const line of lines) firmware.receive(line)
    })
    send('start')
  })
  await listen(server, port)
  const address = server.address()
  return {
    port: typeof address === 'object' && address ? address.port : port,
    machine,
    loseLine: () => {
      firmware.loseNext = true
    },
    close: () =>
      new Promise((done) => {
        clearInterval(timer)
        socket?.destroy()
        server.close(() => done())
      }),
  }
}

const listen = (server: Server, port: number): Promise<void> =>
  new Promise((done, fail) => {
    server.once('error', fail)
    server.listen(port, '127.0.0.1', done)
  })
