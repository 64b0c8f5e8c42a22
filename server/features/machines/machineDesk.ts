import { setTimeout as delay } from 'node:timers/promises'
import type { MachineState } from '@sable/contract/machines'
import { type Address, addressIn, isLoopback } from '@sable/core/shelf/address'
import { asProblem, notFound, ProblemError } from '../../http/problems'
import type { PrintStore } from '../prints/printStore'
import type { ProgramStore } from '../prints/programStore'
import type { ShelfStore } from '../shelf/shelfStore'
import { MachineLink, type Run } from './machineLink'
import type { RunStore } from './runStore'
import type { OpenTransport } from './transport'

/** Machines at the ends of wires, one a printer of the shelf. */
export function createMachineDesk({
  shelf,
  prints,
  programs,
  runs,
  open,
}: {
  readonly shelf: ShelfStore
  readonly prints: PrintStore
  readonly programs: ProgramStore
  readonly runs: RunStore
  readonly open: OpenTransport
}) {
  const links = new Map<string, MachineLink>()
  // What is kept is kept in its order, and read when it is.
  let kept: Promise<unknown> = Promise.resolve()
  const keep = (work: () => Promise<unknown>): void => {
    kept = kept.then(() => untilKept(work)).catch((error: unknown) => console.error(error))
  }

  const linkTo = async (printer: string): Promise<MachineLink> => {
    const address = await addressOf(shelf, printer)
    const known = links.get(printer)
    if (known && known.address.host === address.host && known.address.port === address.port) return known
    known?.close()
    const link = new MachineLink(address, open)
    links.set(printer, link)
    return link
  }
  const connected = async (printer: string): Promise<MachineLink> => {
    const link = await linkTo(printer)
    if (link.state.phase === 'away')
      throw new ProblemError(409, 'machine-away', 'The machine is not connected.', printer, 'Connect it first.')
    return link
  }

  const state = async (printer: string): Promise<MachineState> => {
    const link = await linkTo(printer)
    await kept
    const broken = link.state.print === undefined ? await runs.broken(printer) : undefined
    return {
      ...link.state,
      ...(broken ? { broken: { print: broken.printId, accepted: broken.accepted, total: broken.total, why: broken.why } } : {}),
    }
  }

  const runOf = (printer: string, print: string, lines: readonly string[]): Run => {
    const row = (stand: 'running' | 'broken' | 'done', accepted: number, why = '') => ({
      printId: print,
      printer,
      state: stand,
      accepted,
      total: lines.length,
      why,
    })
    let last = 0
    return {
      print,
      lines,
      onProgress: (accepted) => {
        last = accepted
        keep(() => runs.write(row('running', accepted)))
      },
      onDone: (seconds) =>
        keep(async () => {
          await runs.write(row('done', lines.length))
          await prints.cameToEnd(print, seconds)
        }),
      onBroken: (why) => keep(() => runs.write(row('broken', last, why))),
    }
  }

  /** What a person has ended is not gone on with: it is cold, and the nozzle is elsewhere. */
  const endedByHand = async (printer: string, print: string | undefined): Promise<MachineState> => {
    await kept
    if (print !== undefined) await runs.settle(print)
    return state(printer)
  }

  return {
    state,

    /** @throws ProblemError for a machine beyond this computer that nobody answers for */
    async connect(printer: string, confirmed: boolean): Promise<MachineState> {
      const link = await linkTo(printer)
      const { host, port } = link.address
      if (!isLoopback(host) && !confirmed)
        throw new ProblemError(
          409,
          'not-beyond-loopback',
          `${host} is beyond this computer.`,
          'address of the printer',
          'Confirm that somebody is with the machine: never start a heater from afar in an empty house.',
        )
      try {
        await link.connect()
      } catch (error) {
        throw new ProblemError(
          502,
          'machine-silent',
          `Nothing answers at ${host}:${port} (${error instanceof Error ? error.message : error}).`,
          printer,
          'Switch the machine on, and look at its address on the shelf.',
        )
      }
      return state(printer)
    },

    /** Starts a print: from its first line, or where it broke off. */
    async print(printer: string, print: string): Promise<MachineState> {
      const link = await connected(printer)
      if (link.state.phase !== 'idle')
        throw new ProblemError(409, 'machine-busy', 'The machine is printing.', printer, 'Wait until it has ended, or end it.')
      const { frozen, line } = await prints.get(print)
      if (frozen.printer !== printer)
        throw new ProblemError(
          409,
          'other-printer',
          'The print was foretold for another printer.',
          frozen.printer,
          'Begin it anew from a column of this one.',
        )
      const lines = await programs.lines(print)
      const broken = await runs.broken(printer)
      const goesOn = broken?.printId === print ? broken.accepted : undefined
      if (goesOn === undefined) {
        if (line.state === 'planned') await prints.start(print)
        else throw new ProblemError(409, 'print-begun', 'This print has begun already.', print, 'Begin another one from its column.')
      }
      const run = runOf(printer, print, lines)
      run.onProgress(goesOn ?? 0)
      await link.print(run, goesOn)
      return state(printer)
    },

    async pause(printer: string): Promise<MachineState> {
      ;(await connected(printer)).pause()
      return state(printer)
    },
    async resume(printer: string): Promise<MachineState> {
      ;(await connected(printer)).resume()
      return state(printer)
    },
    async end(printer: string): Promise<MachineState> {
      const link = await connected(printer)
      const { print } = link.state
      await link.end()
      return endedByHand(printer, print)
    },
    async halt(printer: string): Promise<MachineState> {
      const link = await connected(printer)
      const { print } = link.state
      link.halt()
      return endedByHand(printer, print)
    },
    async disconnect(printer: string): Promise<MachineState> {
      links.get(printer)?.close()
      return state(printer)
    },
    /** A print that broke off is not gone on with. */
    async giveUp(printer: string, print: string): Promise<MachineState> {
      await kept
      await runs.settle(print)
      return state(printer)
    },

    close(): void {
      for (const link of links.values()) link.close()
    },
  }
}

/** A database that is away is waited for: what a machine did meanwhile is not forgotten. */
async function untilKept(work: () => Promise<unknown>): Promise<void> {
  for (;;) {
    try {
      await work()
      return
    } catch (error) {
      if (asProblem(error).code !== 'database-away') throw error
      await delay(AWAY_MS)
    }
  }
}
const AWAY_MS = 500

export type MachineDesk = ReturnType<typeof createMachineDesk>

/** Where a printer listens, as its record has it. @throws ProblemError where that does not tell */
async function addressOf(shelf: ShelfStore, printer: string): Promise<Address> {
  const record = (await shelf.records()).printers.find(({ key }) => key === printer)
  if (!record) throw notFound('printer', printer)
  const address = record.address === undefined ? undefined : addressIn(record.address)
  if (!address)
    throw new ProblemError(
      409,
      'no-address',
      `${record.name} has no address.`,
      'its record on the shelf',
      'Write where it listens, for example 127.0.0.1:4831.',
    )
  return address
}
