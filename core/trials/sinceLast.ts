import { definitionOf, type SettingName } from '../profile/settings'
import type { TrialSpec } from './spec/trial'

/** A print of a kind, with the nozzle that it was made with. */
export interface PrintedTrial {
  readonly spec: TrialSpec
  readonly nozzle: string
}

/**
 * What changed between two prints of one kind beside what its bands vary, each as a few words: readings of both are compared as if
 * nothing else had.
 */
export function sinceLast(last: PrintedTrial, now: PrintedTrial): string[] {
  const varied = new Set(now.spec.bands.flatMap(({ values }) => Object.keys(values)))
  const names = new Set([...Object.keys(last.spec.values), ...Object.keys(now.spec.values)]) as Set<SettingName>
  const changed = [...names]
    .filter((name) => !varied.has(name) && last.spec.values[name] !== now.spec.values[name])
    .map(
      (name) =>
        `${definitionOf(name).label.toLowerCase()} ${last.spec.values[name] ?? 'as usual'} → ${now.spec.values[name] ?? 'as usual'}`,
    )
  return last.nozzle === now.nozzle ? changed : [`nozzle ${last.nozzle} → ${now.nozzle}`, ...changed]
}
