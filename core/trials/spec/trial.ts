import { z } from 'zod'
import type { Override } from '../../profile/overrides'
import { type SettingValues, settingValuesSchema } from '../../profile/settings'

/** Kinds of trial in the order in which a new spool is got to know. */
export const trialKindIds = [
  'dryness',
  'temperature',
  'bed',
  'flowLadder',
  'retraction',
  'fan',
  'overhang',
  'bridge',
  'gloss',
  'ringing',
  'dimensions',
  'barsLying',
  'barsStanding',
  'thinRod',
  'smallTip',
  'allRound',
] as const
export type TrialKindId = (typeof trialKindIds)[number]

/** A band of a trial: what it is called on the print, the number that varies, and the settings that hold in it. */
export const trialBandSchema = z.object({
  label: z.string().min(1).max(24),
  /** What varies, in the kind's own unit; absent where several settings change at once. */
  value: z.number().optional(),
  values: settingValuesSchema,
})
export type TrialBand = z.infer<typeof trialBandSchema>

/** Most bands of one trial. */
export const MOST_BANDS = 60

/** A test print: what kind, which bands, with what, where. Lengths mm; bands from the bed up, or from left to right. */
export const trialSpecSchema = z.object({
  kind: z.enum(trialKindIds),
  /** One of the forms of its kind. */
  form: z.string().max(24).optional(),
  bands: z.array(trialBandSchema).max(MOST_BANDS),
  /** Settings of the whole print. */
  values: settingValuesSchema,
  /** A part of the user's own that is printed in small in the place of the kind's thing. */
  own: z
    .object({
      partId: z.string().max(64),
      contentKey: z.string().max(128),
      fileName: z.string().max(255),
      scale: z.number().positive().max(1),
    })
    .optional(),
  /** Sizes of the thing: height of a band and of the foot, and its length where that matters. */
  size: z.object({ band: z.number().positive(), foot: z.number().min(0), length: z.number().positive() }),
})
export type TrialSpec = z.infer<typeof trialSpecSchema>

export interface BandHeights {
  readonly fromZ: number
  readonly toZ: number
}

/** Where a band lies, mm. What stands beneath the first belongs to it: a program begins with its values. */
export const heightsOf = ({ size: { band, foot } }: Pick<TrialSpec, 'size'>, index: number): BandHeights => ({
  fromZ: foot + index * band,
  toZ: foot + (index + 1) * band,
})

/** The bands as overrides of a profile. The last one reaches to the top. */
export const overridesOf = (spec: TrialSpec): Override[] =>
  spec.bands.flatMap(({ label, values }, i) =>
    Object.keys(values).length === 0
      ? []
      : [
          {
            name: `band ${i + 1}: ${label}`,
            fromZ: i === 0 ? 0 : heightsOf(spec, i).fromZ,
            ...(i === spec.bands.length - 1 ? {} : { toZ: heightsOf(spec, i).toZ }),
            values: values as SettingValues,
          },
        ],
  )
