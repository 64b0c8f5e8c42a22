import { readdirSync, readFileSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'

/** Running processes that were started with all of the given words among their arguments, each as a whole. */
export function findProcesses(...words) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => pid !== process.pid)
    .filter((pid) => {
      const given = argumentsOf(pid)
      return words.every((word) => given.includes(word))
    })
}

function argumentsOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0')
  } catch {
    return []
  }
}

/**
 * What tells a process from every other one, also from a later one that got its number; undefined where it does not run. The
 * boot and the start in ticks since then, proc(5), field 22 of stat.
 */
export function identityOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The name in brackets may itself hold blanks and brackets.
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
    if (fields[0] === 'Z') return undefined
    return `${readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim()} ${fields[19]}`
  } catch {
    return undefined
  }
}

/** Whether a process runs; one that has ended and is not yet collected does not. */
export const isRunning = (pid) => identityOf(pid) !== undefined

/** Asks a process to end, waits, and ends it by force when it does not. */
export async function stopProcess(pid, patienceMs = 10_000) {
  try {
    process.kill(pid, 'SIGTERM')
    for (let waited = 0; waited < patienceMs; waited += 50) {
      if (!isRunning(pid)) return
      await wait(50)
    }
    process.kill(pid, 'SIGKILL')
    while (isRunning(pid)) await wait(20)
  } catch (error) {
    if (error.code !== 'ESRCH') throw error
  }
}
