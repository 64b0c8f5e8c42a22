import type { Part } from '../mesh/part'
import type { Placement } from '../mesh/place'
import { layDown, type PredictOptions, planFor } from '../pipeline/layDown'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { Scopes } from '../profile/overrides'
import type { SettingValues } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import { writeProgram } from './writeProgram'

export interface ProgramChoice extends PredictOptions {
  readonly partName: string
  readonly filament: 'relative' | 'absolute'
  /** Lines at its head that say what it is for. */
  readonly head?: readonly string[]
}

/**
 * Predicts a candidate and writes the program that prints it so.
 *
 * @param write takes the program piece by piece, in order
 * @throws InputError when the part cannot be worked on at all
 */
export function programFor(
  part: Part,
  placement: Placement,
  setup: Setup,
  values: SettingValues,
  choice: ProgramChoice,
  write: (text: string) => void,
): void {
  const options = { ...choice, cache: choice.cache ?? new StageCache() }
  const prediction = predict(part, placement, setup, values, options)
  const laid = layDown(part, placement, setup, values, options)
  const scopes = new Scopes(laid.resolved.settings, choice.overrides, laid.path.sets)
  const figures = { timeS: prediction.timeS, massG: prediction.filament.massG, lengthMm: prediction.filament.lengthMm }
  writeProgram(
    {
      partName: choice.partName,
      path: laid.path,
      motion: planFor(laid, setup, options),
      settingsOf: (scope) => scopes.settingsOf(scope),
      setup,
      figures,
      filament: choice.filament,
      head: choice.head ?? [],
    },
    write,
  )
}
