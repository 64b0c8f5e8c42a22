import { listenOn, type StandinInstrument } from './instrument'
import type { Machine } from './printer/machine'
import { normalBy, seededBy } from './random'
import { lengthOf } from './thing'

/** A caliper shows hundredths, and is not held twice alike, mm. */
const NOISE_MM = 0.03

/** A caliper on what a machine made: told an axis, it sends what it shows, as such instruments do. */
export function serveCaliper({
  seed,
  port,
  machine,
}: {
  readonly seed: number
  readonly port: number
  readonly machine: Machine
}): Promise<StandinInstrument> {
  const random = seededBy(seed)
  return listenOn(port, (socket) => {
    socket.on('data', (bytes: Buffer) => {
      for (const axis of bytes.toString('latin1').toUpperCase().match(/[XYZ]/g) ?? []) {
        const shown = lengthOf(machine.making, machine.truth, axis as 'X' | 'Y' | 'Z') + NOISE_MM * normalBy(random)
        socket.write(`01A+${shown.toFixed(2).padStart(8, '0')} mm\r\n`)
      }
    })
  })
}
