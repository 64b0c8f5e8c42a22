import type { Placement } from '@sable/core/mesh/place'
import type { LoadPlace } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { Override } from '@sable/core/profile/overrides'
import type { SettingValues } from '@sable/core/profile/settings'
import type { ProgramFigures } from '@sable/core/program/timeProgram'
import type { Setup } from '@sable/core/setup/resolve'
import type { TrialSpec } from '@sable/core/trials/spec/trial'
import { InputError } from '@sable/core/units/errors'

/** A candidate as it is sent to a worker. */
export interface PredictRequest {
  readonly partId: string
  readonly contentKey: string
  readonly fileName: string
  readonly placement: Placement
  readonly setup: Setup
  readonly values: SettingValues
  readonly overrides: readonly Override[]
  readonly load: LoadPlace | undefined
  /** A part that is made by code, not read from the server. */
  readonly made?: { readonly spec: TrialSpec; readonly setup: Setup } | undefined
}

export type PlacedPart = Pick<PredictRequest, 'partId' | 'contentKey' | 'fileName' | 'placement' | 'made'>

/** What crosses back: classes do not survive the way between threads. */
export type PredictAnswer =
  | { readonly kind: 'done'; readonly prediction: Prediction }
  | { readonly kind: 'cancelled' }
  | { readonly kind: 'refused'; readonly message: string; readonly where: string; readonly remedy: string }

export type ProgramAnswer =
  | { readonly kind: 'done'; readonly figures: readonly ProgramFigures[] }
  | Exclude<PredictAnswer, { readonly kind: 'done' }>

/** What is wrong with what was asked for. @throws what is no refusal */
export function refusalOf(error: unknown, fileName = ''): Extract<PredictAnswer, { readonly kind: 'refused' }> {
  if (!(error instanceof InputError)) throw error
  return {
    kind: 'refused',
    message: error.message,
    where: [fileName, error.where].filter((text) => text !== '').join(', '),
    remedy: error.remedy,
  }
}
