import type { Setup } from '../setup/resolve'
import { trialKinds } from './kinds'
import { heightsOf, type TrialSpec } from './spec/trial'

/** What stands in the head of a trial's program: what it is, for which spool, what each band is, and how it is read. */
export function headOf(spec: TrialSpec, { spool, material, printer, nozzle }: Setup): string[] {
  const kind = trialKinds[spec.kind]
  return [
    `TRIAL: ${kind.name}`,
    `It tells ${kind.tells}.`,
    `for ${spool?.name ?? material.name} on ${printer.name}, ${nozzle.name}`,
    ...spec.bands.map(({ label, values }, i) => {
      const { fromZ, toZ } = heightsOf(spec, i)
      const where = kind.bandsRun === 'up' ? `${i === 0 ? '0' : fromZ.toFixed(2)} to ${toZ.toFixed(2)} mm` : 'from the left'
      const what = Object.entries(values).map(([name, value]) => `${name} = ${value}`)
      return `band ${i + 1}, ${where}: ${label}${what.length > 0 ? ` (${what.join(', ')})` : ''}`
    }),
    `HOW TO READ: ${kind.how}`,
  ]
}
