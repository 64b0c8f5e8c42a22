import type { FaultCase } from '../faults/case'
import { causesOf, faults } from '../faults/faults'
import type { Tried } from '../faults/outcomes'
import { type Cause, changeBy } from '../faults/spec/cause'
import type { Scene } from '../faults/spec/scene'
import { definitionOf, type SettingName } from '../profile/settings'
import { type Asked, type RuledOut, sameFault } from './ruledOutBook'

/** How a case is called in the book. */
const CASE = 'the case of '

/** What experiments of the log ruled out, as tries of a case of the same fault on the same printer and reel. */
export function ruledOutByLog(
  fault: FaultCase['fault'],
  place: { printer: string; spool?: string | undefined },
  book: readonly RuledOut[],
  scene: Scene,
): Tried[] {
  const own = book.filter(
    ({ fault: name, printer, spool, questions }) =>
      sameFault(name, faults[fault].name) &&
      printer === place.printer &&
      spool === place.spool &&
      // Cases tell each other by themselves what they ruled out.
      questions.some((one) => !one.startsWith(CASE)),
  )
  return causesOf(faults[fault]).flatMap((cause) => {
    const out = own.find((one) => isOf(one, cause, scene))
    return out ? [{ cause: cause.id, did: 'same' as const, elsewhere: out.questions.join(', ') }] : []
  })
}

/** Whether a change that was ruled out is what a cause would have one do: the same thing, the same way. */
function isOf({ label, was, is }: RuledOut, cause: Cause, scene: Scene): boolean {
  if (label === 'reel') return cause.id === 'wet' && is === 'dry'
  if (label === 'spool') return cause.id === 'otherSpool'
  return cause.remedies.some((remedy) =>
    Object.entries(changeBy(remedy, scene) ?? {}).some(([name, value]) => {
      if (definitionOf(name as SettingName).label !== label) return false
      const [before, after] = [Number.parseFloat(was), Number.parseFloat(is)]
      if (typeof value !== 'number' || Number.isNaN(before) || Number.isNaN(after)) return is.startsWith(String(value))
      return Math.sign(after - before) === Math.sign(value - (scene.settings[name as SettingName] as number))
    }),
  )
}

/** A case as a question to prints, so that the log's book of what is ruled out has its tries too. */
export function askedByCase(
  one: FaultCase & { readonly partName: string; readonly candidate: { readonly printer: string; readonly spool?: string | undefined } },
): Asked {
  const { printer, spool } = one.candidate
  return {
    question: `${CASE}${one.partName}`,
    fault: faults[one.fault].name,
    tries: one.tries.flatMap(({ change = {}, was = {}, did, mixed }) => {
      if (did === undefined || did === 'another' || mixed) return []
      const changed = Object.entries(change).map(([name, value]) => ({
        label: definitionOf(name as SettingName).label,
        was: told(name, was[name as SettingName]),
        is: told(name, value),
      }))
      return [{ printer, spool, changed, did: did === 'fixed' || did === 'better' ? ('helped' as const) : did }]
    }),
  }
}

function told(name: string, value: number | string | undefined): string {
  if (value === undefined) return 'as it was'
  const definition = definitionOf(name as SettingName)
  return `${value}${definition.kind === 'number' ? ` ${definition.unit}` : ''}`.trim()
}
