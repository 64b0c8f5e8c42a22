import { parseArgs } from 'node:util'
import { serveCaliper } from './caliper'
import { hiddenIds, isHiddenId } from './hidden'
import { servePrinter } from './printer/serve'
import { serveScale } from './scale'
import { serveTable } from './table'

// The workshop's stand-ins, in a process of their own: a printer, the scale on which its reel lies, a caliper and an eye for what lies on its table. Says "ready" to its parent.

const { values } = parseArgs({
  options: {
    seed: { type: 'string', default: '7' },
    port: { type: 'string', default: '4830' },
    'scale-port': { type: 'string' },
    'caliper-port': { type: 'string' },
    'table-port': { type: 'string' },
    times: { type: 'string', default: '1' },
    hidden: { type: 'string' },
  },
})
const [seed, port, times] = [Number(values.seed), Number(values.port), Number(values.times)]
/** A reel that is half full. */
const GROSS_G = 735.4
const hidden = values.hidden
if (hidden !== undefined && !isHiddenId(hidden))
  throw new RangeError(`There is no fault "${hidden}". Choose one of ${hiddenIds.join(', ')}.`)
const printer = await servePrinter({ seed, port, times, ...(hidden === undefined ? {} : { hidden }) })
if (values['scale-port'] !== undefined)
  await serveScale({ seed, port: Number(values['scale-port']), grossG: GROSS_G, machine: printer.machine })
if (values['caliper-port'] !== undefined) await serveCaliper({ seed, port: Number(values['caliper-port']), machine: printer.machine })
if (values['table-port'] !== undefined) await serveTable({ port: Number(values['table-port']), machine: printer.machine })
if (process.send) process.send('ready')
else
  process.stdout.write(`A simulated printer listens on 127.0.0.1:${printer.port}; its clock runs ${times} times as fast as the wall's.\n`)
process.on('disconnect', () => process.exit(0))
process.on('SIGTERM', () => process.exit(0))
process.on('SIGINT', () => process.exit(0))
