import { listenOn, type StandinInstrument } from './instrument'
import type { Machine } from './printer/machine'
import { seenThing } from './thing'

/** An eye on the table of a machine: who looks is sent what stands there, as one line of JSON, and that is all. */
export const serveTable = ({ port, machine }: { readonly port: number; readonly machine: Machine }): Promise<StandinInstrument> =>
  listenOn(port, (socket) => {
    socket.end(`${JSON.stringify({ thing: seenThing(machine.making) ?? null, pulledApartAtN: machine.making.pullN() })}\n`)
  })
