import type { Constants } from '@sable/core/constants/constants'
import type { Doubtful } from '@sable/core/doubt/doubt'
import { slopesOf } from '@sable/core/doubt/slopes'
import { valuesOf } from '@sable/core/figures/figures'
import type { ProfileFile } from '@sable/core/formats/profileFile'
import type { PolygonKernel } from '@sable/core/geometry/polygon'
import type { Part } from '@sable/core/mesh/part'
import type { Placement } from '@sable/core/mesh/place'
import { noPurpose, type Purpose, placeOf } from '@sable/core/physics/strength/purpose'
import { type Prediction, predict } from '@sable/core/pipeline/predict'
import type { StageCache } from '@sable/core/pipeline/stageCache'
import type { Override } from '@sable/core/profile/overrides'
import { isSettingName, nameToday, parseValue, type SettingValues } from '@sable/core/profile/settings'
import { inOwnUnit } from '@sable/core/profile/typedValue'
import { knownSetup } from '@sable/core/setup/knownSetup'
import { resolveSettings, type Setup } from '@sable/core/setup/resolve'
import { InputError } from '@sable/core/units/errors'
import { findSetup } from './findRecords'
import type { SharedOptions } from './options'

export interface CandidateChoice {
  readonly setup: Setup
  readonly values: SettingValues
  readonly placement: Placement
  readonly overrides: readonly Override[]
}

/** What a profile file and the options over it say together. */
export function candidateOf(file: ProfileFile | undefined, options: SharedOptions): CandidateChoice {
  const setup = findSetup({
    printer: options.printer ?? file?.printer,
    nozzle: options.nozzle ?? file?.nozzle,
    material: options.material ?? file?.material,
    spool: options.spool,
  })
  const values = readSettings(options.set, setup, file?.settings ?? {})
  const placement: Placement = { scale: options.scale, rotateDeg: options.rotate }
  return { setup, values, placement, overrides: file?.overrides ?? [] }
}

/** A prediction, and what the doubt of its figures is made of. */
export interface Foretold {
  readonly prediction: Prediction
  readonly doubtful: Doubtful
}

/** A prediction with its doubts, for which it is computed again with each of its constants moved. */
export function foretell(
  part: Part,
  file: ProfileFile | undefined,
  options: SharedOptions,
  kernel: PolygonKernel,
  cache: StageCache,
): Foretold {
  const purpose = purposeOf(options)
  const { setup } = candidateOf(file, options)
  const { constants } = knownSetup(setup)
  const slopes = slopesOf((own) => valuesOf(predictWith(part, file, options, kernel, cache, own), purpose), constants)
  return { prediction: predictWith(part, file, options, kernel, cache), doubtful: { slopes, setup } }
}

export function predictWith(
  part: Part,
  file: ProfileFile | undefined,
  options: SharedOptions,
  kernel: PolygonKernel,
  cache: StageCache,
  constants?: Constants,
): Prediction {
  const { setup, values, placement, overrides } = candidateOf(file, options)
  return predict(part, placement, constants ? { ...setup, constants } : setup, values, {
    kernel,
    cache,
    overrides,
    load: placeOf(purposeOf(options)),
  })
}

/** The weakest of the usual loads unless another one is asked for. */
export function purposeOf({ load = noPurpose.load, grip }: SharedOptions): Purpose {
  const [heldTo, loadedFrom] = grip ?? [load.heldTo, load.loadedFrom]
  return { ...noPurpose, load: { ...load, heldTo, loadedFrom } }
}

/** Values of a profile with those of the command line over them, which may carry a unit. */
function readSettings(pairs: readonly string[], setup: Setup, base: SettingValues): SettingValues {
  const values: Record<string, number | string> = { ...base }
  for (const pair of pairs) {
    const at = pair.indexOf('=')
    if (at < 1)
      throw new InputError('set-malformed', `"${pair}" is not of the form name=value.`, '--set', 'Write for example --set layerHeight=0.2.')
    const name = nameToday(pair.slice(0, at).trim())
    const text = pair.slice(at + 1)
    const { settings } = resolveSettings(setup, values)
    values[name] = parseValue(name, isSettingName(name) ? inOwnUnit(name, text, (other) => Number(settings[other])) : text, '--set')
  }
  return values
}
