import { refuse } from './lib/say.mjs'
import { runOnDatabase } from './lib/withDatabase.mjs'

/** Writes everything on the desk to one file, whether the desk runs or not. */
const [file] = process.argv.slice(2)
if (file === undefined) refuse('Usage: npm run backup -- FILE.zip')
process.exit(await runOnDatabase(['backup', file]))
