import { InputError } from '@sable/core/units/errors'
import { type HiddenId, hiddenIds, isHiddenId } from '@sable/standins/hidden'
import { type Mishap, mishapKinds } from '@sable/standins/printer/machine'
import { servePrinter } from '@sable/standins/printer/serve'
import type { Command } from 'commander'
import { readNumber } from '../options'
import { print } from '../report'

interface StandinOptions {
  readonly seed: number
  readonly port: number
  readonly times: number
  readonly fail?: Mishap
  readonly hidden?: HiddenId
}

export function addStandin(program: Command): void {
  program
    .command('standin')
    .description('simulated machines on loopback, to try things on')
    .command('printer')
    .description('a printer that speaks G-code line by line over TCP, with a truth of its own')
    .option('--seed <number>', 'which machine it is', readNumber('--seed'), 7)
    .option('--port <number>', 'where it listens', readNumber('--port'), 4830)
    .option('--times <number>', 'how much faster its clock runs than the wall’s', readNumber('--times'), 1)
    .option('--fail <kind@mm>', `what goes wrong at a height: ${mishapKinds.join(', ')}`, readMishap)
    .option('--hidden <fault>', `what is wrong with it from the beginning: ${hiddenIds.join(', ')}`, readHidden)
    .action(async ({ seed, port, times, fail, hidden }: StandinOptions) => {
      const printer = await servePrinter({ seed, port, times, ...(fail ? { mishap: fail } : {}), ...(hidden ? { hidden } : {}) })
      print(`A simulated printer listens on 127.0.0.1:${printer.port}. Ctrl-C ends it.`)
      await new Promise<void>((done) => process.once('SIGINT', () => done()))
      await printer.close()
    })
}

function readHidden(text: string): HiddenId {
  if (isHiddenId(text)) return text
  throw new InputError('hidden-unknown', `There is no hidden fault "${text}".`, '--hidden', `Choose one of ${hiddenIds.join(', ')}.`)
}

/** "jam@12.5" @throws InputError for anything else */
function readMishap(text: string): Mishap {
  const [name, height] = text.split('@')
  const kind = mishapKinds.find((one) => one === name)
  const atZ = Number(height)
  if (kind && height !== undefined && atZ >= 0) return { kind, atZ }
  throw new InputError(
    'mishap-unknown',
    `"${text}" says neither what goes wrong nor where.`,
    '--fail',
    `Write for example ${mishapKinds[0]}@12.5; there are ${mishapKinds.join(', ')}.`,
  )
}
