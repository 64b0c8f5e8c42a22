import { listenOn, type StandinInstrument } from './instrument'
import { FILAMENT_MM2 } from './making'
import type { Machine } from './printer/machine'
import { normalBy, seededBy } from './random'

/** Density of what is on the reel, g/mm³; a usual one. */
const DENSITY = 1.24e-3
/** It shows whole tenths, wanders by a gram or so from reading to reading, and drifts slowly, g. */
const [NOISE_G, DRIFT_G] = [0.4, 0.5]
const EVERY_MS = 200

/** What hangs on a reel after a machine has taken from it, g. */
export const reelLeft = (grossG: number, { fedMm, truth }: Pick<Machine, 'fedMm' | 'truth'>): number =>
  grossG - fedMm * FILAMENT_MM2 * DENSITY * truth.flowFactor

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
}): Promise<StandinInstrument> {
  const random = seededBy(seed)
  const drift = DRIFT_G * normalBy(random)
  return listenOn(port, (socket) => {
    const timer = setInterval(() => {
      const grams = reelLeft(grossG, machine) + drift + NOISE_G * normalBy(random)
      socket.write(`ST,GS, ${grams.toFixed(1).padStart(7)} g\r\n`)
    }, EVERY_MS)
    socket.on('close', () => clearInterval(timer))
  })
}
