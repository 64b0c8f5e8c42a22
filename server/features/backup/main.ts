import { resolve } from 'node:path'
import { InputError } from '@sable/core/units/errors'
import { connect } from '../../database/connect'
import { databaseInEnvironment, required } from '../../database/environment'
import { migrate, NewerDatabase } from '../../database/migrations/migrate'
import { ProblemError } from '../../http/problems'
import { createBackups } from './backupDesk'
import { writeBackupFile } from './writeBackup'

/** Status that says that the desk holds something and may not be replaced without a word. */
const MUST_ASK = 3

/** `backup FILE` or `restore FILE [--over]`, for scripts/backup.mjs and scripts/restore.mjs. */
const [what, file, option] = process.argv.slice(2) as [string, string, string?]
const address = databaseInEnvironment()
const sequelize = connect(address)
let status = 0
try {
  await migrate(sequelize)
  if (what === 'backup') {
    await writeBackupFile(sequelize, resolve(file))
    console.log(`${file}: everything on the desk, with checksums.`)
  } else {
    await createBackups(sequelize, address, required('SABLE_BACKUP_FOLDER')).restore(resolve(file), option === '--over')
    console.log(`${file} is back on the desk.`)
  }
} catch (error) {
  const isKnown = error instanceof ProblemError || error instanceof InputError
  if (error instanceof NewerDatabase) console.error(error.message)
  else console.error(isKnown ? `${error.where === '' ? '' : `${error.where}: `}${error.message} ${error.remedy}` : error)
  status = error instanceof ProblemError && error.code === 'desk-not-empty' ? MUST_ASK : 1
}
await sequelize.close()
process.exit(status)
