import { mkdirSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { dataDir } from './paths.mjs'
import { identityOf } from './processes.mjs'
import { refuse } from './say.mjs'

const startFile = join(dataDir, 'start.json')
/** Free room without which a database cannot be made, or go on, MB. */
const ROOM_TO_MAKE = 700
const ROOM_TO_GO_ON = 100

/** Makes the folder of the desk, or says why it cannot be. */
export function openFolder(isNew) {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 })
  const { bavail, bsize } = statfsSync(dataDir)
  const [left, needed] = [Math.floor((bavail * bsize) / 2 ** 20), isNew ? ROOM_TO_MAKE : ROOM_TO_GO_ON]
  if (left < needed)
    refuse(
      `The disk that holds ${dataDir} has ${left} MB left; ${needed} MB are needed. Free some, or set SABLE_DATA to a folder elsewhere.`,
    )
}

/** The start that runs this desk now; undefined where none does. What only has its number is not believed to be it. */
export function runningStart() {
  try {
    const { pid, port, identity } = JSON.parse(readFileSync(startFile, 'utf8'))
    return pid !== process.pid && identity !== undefined && identityOf(pid) === identity ? { pid, port } : undefined
  } catch {
    return undefined
  }
}

/** Says that this process runs the desk. */
export const claimDesk = (port) =>
  writeFileSync(startFile, JSON.stringify({ pid: process.pid, port, identity: identityOf(process.pid) }), { mode: 0o600 })

export const leaveDesk = () => rmSync(startFile, { force: true })

/** What went wrong with files, as a sentence; undefined for anything else. */
export function explain(error) {
  const where = error.path ?? error.dest ?? dataDir
  switch (error.code) {
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk is full: ${where} cannot be written. Free some room, or set SABLE_DATA to a folder elsewhere; nothing stored is lost.`
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
    case 'ENOTDIR':
    case 'ENOENT':
      return `The desk's folder cannot be used: ${where} cannot be written (${error.code}). Set SABLE_DATA to a folder that can.`
    default:
      return undefined
  }
}
