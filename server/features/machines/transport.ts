import { connect } from 'node:net'
import type { Address } from '@sable/core/shelf/address'

/** A wire to a machine: lines go out and come in. */
export interface Transport {
  readonly send: (line: string) => void
  readonly close: () => void
}

export interface TransportEvents {
  readonly onLine: (line: string) => void
  /** The wire is gone, for whatever reason; told once. */
  readonly onClose: (why: string) => void
}

export type OpenTransport = (address: Address, events: TransportEvents) => Promise<Transport>

/** A machine says nothing so long, line by line, characters. */
const LONGEST = 4096
const PATIENCE_MS = 5000

/** Wires over TCP; what is left of a line beyond so many characters is not waited for. */
export const tcpWith =
  (longest: number): OpenTransport =>
  ({ host, port }, { onLine, onClose }) =>
    new Promise((done, fail) => {
      const socket = connect({ host, port, timeout: PATIENCE_MS })
      let why = 'The machine closed the connection.'
      let rest = ''
      socket.setNoDelay(true)
      socket.once('timeout', () => socket.destroy(new Error(`${host}:${port} did not answer within ${PATIENCE_MS / 1000} s.`)))
      socket.once('connect', () => {
        socket.setTimeout(0)
        done({ send: (line) => void socket.write(`${line}\n`), close: () => socket.destroy() })
      })
      socket.on('data', (bytes: Buffer) => {
        rest += bytes.toString('latin1')
        const lines = rest.split(/\r?\n/)
        rest = lines.pop()!.slice(0, longest)
        for (const line of lines) onLine(line)
      })
      socket.on('error', (error) => {
        why = error.message
        fail(error)
      })
      socket.once('close', () => onClose(why))
    })

/** Opens a wire over TCP. @throws Error with the network's own words */
export const tcpTransport = tcpWith(LONGEST)
