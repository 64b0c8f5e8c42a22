import { readFile } from 'node:fs/promises'
import { connect } from 'node:net'
import { LineStream, programLines } from '@sable/core/program/lineStream'
import { addressIn, isLoopback } from '@sable/core/shelf/address'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { unreadable } from '../files'
import { print } from '../report'

/** How often it is told how far it has come, ms; a machine that says nothing for so long is asked again, ms. */
const TOLD_EVERY_MS = 2000
const SILENT_MS = 30_000
const LOST_MS = 1000

export function addPrint(program: Command): void {
  program
    .command('print')
    .description('send a program to a machine line by line; somebody must be with it')
    .argument('<program>', 'G-code file')
    .requiredOption('--to <host:port>', 'where the machine listens')
    .option('--there', 'somebody is with the machine: needed where it is beyond this computer')
    .action(async (path: string, { to, there = false }: { to: string; there?: boolean }) => {
      const address = addressIn(to)
      if (!address)
        throw new InputError('address-malformed', `"${to}" is no address.`, '--to', 'Write it as host:port, for example 127.0.0.1:4830.')
      const { host, port } = address
      if (!isLoopback(host) && !there)
        throw new InputError(
          'not-beyond-loopback',
          `${host} is beyond this computer.`,
          '--to',
          'Add --there if somebody is with the machine: never start a heater from afar in an empty house.',
        )
      const text = await readFile(path, 'latin1').catch((error: unknown) => {
        throw unreadable(path, error)
      })
      await send([...programLines(text), 'M400', 'M400'], host, port)
    })
}

/** Sends all lines and waits until the machine has done them. @throws InputError where the machine does not answer, or halts */
function send(lines: readonly string[], host: string, port: number): Promise<void> {
  return new Promise((done, fail) => {
    const socket = connect({ host, port })
    const stream = new LineStream(lines, (line) => socket.write(`${line}\n`))
    let rest = ''
    let heardAt = Date.now()
    let isOver = false
    const end = (problem?: InputError): void => {
      if (isOver) return
      isOver = true
      clearInterval(telling)
      clearInterval(watching)
      socket.destroy()
      if (problem) fail(problem)
      else {
        print(`Done: ${lines.length} lines.`)
        done()
      }
    }
    const broken = (why: string): InputError =>
      new InputError(
        'machine-broke-off',
        why,
        `${host}:${port}`,
        `It had accepted ${stream.accepted} of ${lines.length} lines: look at the machine first.`,
      )
    const telling = setInterval(() => print(`line ${stream.accepted} of ${lines.length}`), TOLD_EVERY_MS)
    const watching = setInterval(() => {
      if (Date.now() - heardAt < (stream.awaitsLost ? LOST_MS : SILENT_MS)) return
      heardAt = Date.now()
      stream.nudge()
    }, LOST_MS)
    socket.once('connect', () => stream.begin())
    socket.on('data', (bytes: Buffer) => {
      rest += bytes.toString('latin1')
      const heard = rest.split(/\r?\n/)
      rest = heard.pop()!
      for (const line of heard) {
        if (/busy/.test(line) || stream.receive(line)) heardAt = Date.now()
        else if (/^Error:Printer halted/.test(line)) end(broken('The machine halted itself and turned its heaters off.'))
      }
      if (stream.hasForgotten) end(broken('The machine was switched off in between.'))
      else if (stream.isDone) end()
    })
    socket.on('error', (error) => end(broken(`Nothing answers (${error.message}).`)))
    socket.once('close', () => end(broken('The machine closed the connection.')))
  })
}
