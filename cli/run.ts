import { InputError } from '@sable/core/units/errors'
import { Command, CommanderError } from 'commander'
import version from '../package.json' with { type: 'json' }
import { addCompare } from './commands/compare'
import { addCompletion } from './commands/completion'
import { addConvert } from './commands/convert'
import { addFault } from './commands/fault'
import { addLearn } from './commands/learn'
import { addMatrix } from './commands/matrix'
import { addPicture } from './commands/picture'
import { addPlate } from './commands/plate'
import { addPredict } from './commands/predict'
import { addPrint } from './commands/print'
import { addQueue } from './commands/queue'
import { addShelf } from './commands/shelf'
import { addStandin } from './commands/standin'
import { addStrength } from './commands/strength'
import { addSuggest } from './commands/suggest'
import { addTime } from './commands/time'
import { addToolpath } from './commands/toolpath'
import { addTrial } from './commands/trial'
import { useShelf } from './shelfInUse'

const VERSION = version.version

/** Runs a command with its arguments. Writes to standard output and error, and returns the exit code. */
export async function run(args: readonly string[]): Promise<number> {
  const program = new Command('sable')
    .description('Predicts time, filament, surface and strength of a printed part.')
    .version(VERSION, '--version')
    .option('--shelf <file>', 'shelf that was exported in the application, in the place of the starter records')
    .showHelpAfterError()
    .showSuggestionAfterError()
    .exitOverride()
    .hook('preAction', async (top) => useShelf(top.opts<{ shelf?: string }>().shelf))
  for (const add of [
    addPredict,
    addCompare,
    addSuggest,
    addMatrix,
    addStrength,
    addToolpath,
    addPlate,
    addPicture,
    addTime,
    addConvert,
    addTrial,
    addLearn,
    addFault,
    addQueue,
    addPrint,
    addStandin,
    addShelf,
    addCompletion,
  ])
    add(program)
  try {
    await program.parseAsync(args, { from: 'user' })
    return 0
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode
    process.stderr.write(`${error instanceof InputError ? error.sentence : (error as Error).stack}\n`)
    return 1
  }
}
