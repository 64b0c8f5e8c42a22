import { readdirSync, readFileSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'

/** Running processes whose command line holds all of the given words. */
export function findProcesses(...words) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => pid !== process.pid)
    .filter((pid) => {
      const line = commandLine(pid)
      return words.every((word) => line.includes(word))
    })
}

export function commandLine(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')
  } catch {
    return ''
  }
}

/** Whether a process runs; one that has ended and is not yet collected does not. */
export function isRunning(pid) {
  try {
    return !/^State:\s*Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}

/** Asks a process to end, waits, and ends it by force when it does not. */
export async function stopProcess(pid, patienceMs = 10_000) {
  try {
    process.kill(pid, 'SIGTERM')
    for (let waited = 0; waited < patienceMs; waited += 50) {
      if (!isRunning(pid)) return
      await wait(50)
    }
    process.kill(pid, 'SIGKILL')
  } catch (error) {
    if (error.code !== 'ESRCH') throw error
  }
}
