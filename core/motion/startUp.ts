import type { Heat } from '../profile/heatOn'
import type { Printer } from '../shelf/printer'

/**
 * Time before the first line, s: bed and nozzle heat at once, each as a first-order system that would end at `reach` °C
 * after many times its `tau` seconds, t = −τ·ln((reach − wanted)/(reach − room)); then homing and purging.
 *
 * @param more what it is known to take beyond that, s
 * @returns undefined where the printer tells nothing about its start, or cannot reach a temperature
 */
export function startUpTime({ start }: Pick<Printer, 'start'>, { nozzle, bed }: Heat, room: number, more = 0): number | undefined {
  if (!start) return undefined
  const heating = Math.max(heatingTime(start.bed, bed, room), heatingTime(start.nozzle, nozzle, room))
  return Number.isFinite(heating) ? Math.max(0, heating + start.homingS + start.purgeS + more) : undefined
}

/** s; infinite for a temperature that is never reached. */
export function heatingTime({ tauS, reachC }: { readonly tauS: number; readonly reachC: number }, wanted: number, room: number): number {
  if (wanted <= room) return 0
  return wanted < reachC ? -tauS * Math.log((reachC - wanted) / (reachC - room)) : Infinity
}
