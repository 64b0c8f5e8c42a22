import { servePrinter } from '@sable/standins/printer/serve'
import type { Command } from 'commander'
import { readNumber } from '../options'
import { print } from '../report'

export function addStandin(program: Command): void {
  program
    .command('standin')
    .description('simulated machines on loopback, to try things on')
    .command('printer')
    .description('a printer that speaks G-code line by line over TCP, with a truth of its own')
    .option('--seed <number>', 'which machine it is', readNumber('--seed'), 7)
    .option('--port <number>', 'where it listens', readNumber('--port'), 4830)
    .option('--times <number>', 'how much faster its clock runs than the wall’s', readNumber('--times'), 1)
    .action(async ({ seed, port, times }: { seed: number; port: number; times: number }) => {
      const printer = await servePrinter({ seed, port, times })
      print(`A simulated printer listens on 127.0.0.1:${printer.port}. Ctrl-C ends it.`)
      await new Promise<void>((done) => process.once('SIGINT', () => done()))
      await printer.close()
    })
}
