import { createInterface } from 'node:readline/promises'
import { parseArgs } from 'node:util'
import { runningStart } from './lib/desk.mjs'
import { refuse } from './lib/say.mjs'
import { runOnDatabase } from './lib/withDatabase.mjs'

/** Puts a backup in the place of what the desk holds; asks first where that is anything of the user's. */
const USAGE = 'Usage: npm run restore -- FILE.zip [--over]'
const MUST_ASK = 3
const { values, positionals } = parseArgs({ options: { over: { type: 'boolean' } }, allowPositionals: true })
const [file] = positionals
if (file === undefined) refuse(USAGE)
const running = runningStart()
if (running)
  refuse(`The desk is running: http://localhost:${running.port}. Restore it there, under Shelf, File; or end it with Ctrl-C first.`)
let status = await runOnDatabase(['restore', file, ...(values.over ? ['--over'] : [])])
if (status === MUST_ASK && process.stdin.isTTY) {
  const asking = createInterface({ input: process.stdin, output: process.stderr })
  const answer = await asking.question('Replace it? What is there is written to .data/backups first. [y/N] ')
  asking.close()
  if (/^y/i.test(answer.trim())) status = await runOnDatabase(['restore', file, '--over'])
}
if (status === MUST_ASK) process.stderr.write('Run it with --over to replace it.\n')
process.exit(status)
