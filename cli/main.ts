import { InputError } from '@sable/core/errors'
import { Command, CommanderError } from 'commander'
import { addCompare } from './commands/compare'
import { addConvert } from './commands/convert'
import { addPredict } from './commands/predict'
import { addShelf } from './commands/shelf'
import { addTime } from './commands/time'
import { addToolpath } from './commands/toolpath'

const program = new Command('sable')
  .description('Predicts time, filament, surface and strength of a printed part.')
  .showHelpAfterError()
  .exitOverride()
for (const add of [addPredict, addCompare, addToolpath, addTime, addConvert, addShelf]) add(program)

try {
  await program.parseAsync()
} catch (error) {
  if (error instanceof CommanderError) process.exitCode = error.exitCode
  else {
    process.stderr.write(`${error instanceof InputError ? error.sentence : (error as Error).stack}\n`)
    process.exitCode = 1
  }
}
