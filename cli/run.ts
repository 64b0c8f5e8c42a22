import { InputError } from '@sable/core/units/errors'
import { Command, CommanderError } from 'commander'
import { addCompare } from './commands/compare'
import { addConvert } from './commands/convert'
import { addLearn } from './commands/learn'
import { addPredict } from './commands/predict'
import { addPrint } from './commands/print'
import { addShelf } from './commands/shelf'
import { addStandin } from './commands/standin'
import { addTime } from './commands/time'
import { addToolpath } from './commands/toolpath'
import { addTrial } from './commands/trial'

/** Runs a command with its arguments. Writes to standard output and error, and returns the exit code. */
export async function run(args: readonly string[]): Promise<number> {
  const program = new Command('sable')
    .description('Predicts time, filament, surface and strength of a printed part.')
    .showHelpAfterError()
    .exitOverride()
  for (const add of [addPredict, addCompare, addToolpath, addTime, addConvert, addTrial, addLearn, addPrint, addStandin, addShelf])
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
