import { Scopes } from '../profile/overrides'
import { writeProgram } from '../program/writeProgram'
import type { Setup } from '../setup/resolve'
import type { ForetoldPlate } from './plateWork'

/**
 * Writes the program of a plate.
 *
 * @param write takes the program piece by piece, in order
 * @throws InputError the first thing that keeps it from being printed: a program for it would be a trap
 */
export function plateProgram(
  name: string,
  { figures, merged, motion }: ForetoldPlate,
  setup: Setup,
  choice: { readonly filament: 'relative' | 'absolute'; readonly head?: readonly string[] },
  write: (text: string) => void,
): void {
  const [problem] = figures.problems
  if (problem) throw problem
  const scopes = new Scopes(merged.settings, merged.overrides, merged.path.sets)
  writeProgram(
    {
      partName: name,
      path: merged.path,
      motion,
      settingsOf: (scope) => scopes.settingsOf(scope),
      setup,
      figures,
      filament: choice.filament,
      head: [...(choice.head ?? []), ...figures.turns.map((i, n) => `part ${n + 1}      ${figures.parts[i]!.name}`)],
    },
    write,
  )
}
