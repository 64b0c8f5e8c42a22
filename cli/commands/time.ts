import { createReadStream } from 'node:fs'
import { basename } from 'node:path'
import { type ProgramFigures, ProgramTimer } from '@sable/core/program/timeProgram'
import type { Setup } from '@sable/core/setup/resolve'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { unreadable } from '../files'
import { findSetup } from '../findRecords'
import { readNumber } from '../options'
import { asProgramTable, plainJson, print } from '../report'

export function addTime(program: Command): void {
  program
    .command('time')
    .description('time a G-code program on a printer')
    .argument('<program>', 'G-code file, whatever wrote it')
    .option('--printer <key>', 'printer from the shelf')
    .option('--corner-speed <mm/s>', 'speed kept at corners, unless the program tells its own', readNumber('--corner-speed'))
    .option('--feature-pattern <regex>', 'comments that name a feature; the first group is the name')
    .option('--layer-pattern <regex>', 'comments that begin a layer')
    .option('--json', 'print one JSON object')
    .action(
      async (
        path: string,
        options: { printer?: string; cornerSpeed?: number; featurePattern?: string; layerPattern?: string; json?: boolean },
      ) => {
        const { printer } = findSetup({ printer: options.printer })
        const timer = newTimer(printer, options)
        let figures: ProgramFigures
        try {
          for await (const piece of createReadStream(path, { highWaterMark: 1 << 20 })) timer.push(piece as Buffer)
          figures = timer.finish()
        } catch (error) {
          throw error instanceof InputError ? inFile(error, basename(path)) : unreadable(path, error)
        }
        print(options.json ? plainJson(figures) : asProgramTable(basename(path), printer.name, figures))
      },
    )
}

function newTimer(
  printer: Setup['printer'],
  options: { cornerSpeed?: number; featurePattern?: string; layerPattern?: string },
): ProgramTimer {
  try {
    return new ProgramTimer(printer, options)
  } catch (error) {
    throw new InputError(
      'pattern-malformed',
      `This is no regular expression (${(error as Error).message}).`,
      '--feature-pattern or --layer-pattern',
      'Write for example --feature-pattern "part: (.*)".',
    )
  }
}

/** A refusal of something in a file, with the file's name. */
const inFile = ({ code, message, where, remedy }: InputError, name: string): InputError =>
  new InputError(code, message, where === '' ? name : `${name}, ${where}`, remedy)
