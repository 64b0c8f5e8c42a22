import { z } from 'zod'
import type { SettingValues } from '../profile/settings'

/** Questions on which practitioners disagree. */
export const schoolIds = ['S1', 'S2', 'S3', 'S4', 'S5', 'S6', 'S7', 'S8', 'S9', 'S10', 'S11', 'S12'] as const
export type SchoolId = (typeof schoolIds)[number]

/** What a side's defaults may look at. */
export interface SchoolGround {
  readonly family: string
  /** Holds fibres or wood. */
  readonly isFilled: boolean
  /** The label's range, °C. */
  readonly nozzleRange: readonly [number, number]
}

export interface Side {
  readonly id: string
  readonly name: string
  /** What settings are by default for whoever follows it; a reel, a profile and an override may say otherwise. */
  readonly defaults?: (ground: SchoolGround) => SettingValues
}

export interface School {
  readonly question: string
  /** The first is what holds while nothing was chosen. */
  readonly sides: readonly [Side, Side, ...Side[]]
}

const forPla =
  (values: SettingValues) =>
  ({ family }: SchoolGround): SettingValues =>
    family === 'PLA' ? values : {}

/** Both or all three sides of each, as practice has them (common practice, S1 to S12). Values are common practice's own. */
export const schools: Readonly<Record<SchoolId, School>> = {
  S1: {
    question: 'Fan on PLA',
    sides: [
      { id: 'full', name: 'full from layer 2' },
      {
        id: 'little',
        name: 'nearly off, but over air',
        defaults: forPla({ fanSpeed: 8, overhangFan25: 40, overhangFan50: 100, overhangFan75: 100, bridgeFan: 100 }),
      },
    ],
  },
  S2: {
    question: 'Least layer time',
    sides: [
      { id: 'always', name: 'always' },
      { id: 'neverFilled', name: 'never for filled filament', defaults: ({ isFilled }) => (isFilled ? { minLayerTime: 0 } : {}) },
    ],
  },
  S3: {
    question: 'Temperature',
    sides: [
      { id: 'middle', name: 'the middle of the label' },
      {
        id: 'hotter',
        name: 'hotter whenever faster',
        defaults: ({ nozzleRange: [low, high] }) => ({ nozzleTemperature: Math.round(low + 0.8 * (high - low)) }),
      },
    ],
  },
  S4: {
    question: 'Strength',
    sides: [
      { id: 'walls', name: 'walls first' },
      { id: 'infill', name: 'more infill', defaults: () => ({ infillDensity: 35 }) },
    ],
  },
  S5: {
    question: 'Lift on travel',
    sides: [
      { id: 'overPrinted', name: 'only over printed parts' },
      { id: 'always', name: 'always', defaults: () => ({ lift: 'always' }) },
      { id: 'never', name: 'never', defaults: () => ({ lift: 'never' }) },
    ],
  },
  S6: {
    question: 'Brim',
    sides: [
      { id: 'asNeeded', name: 'where a check asks for it' },
      { id: 'always', name: 'always', defaults: () => ({ brim: 'outer' }) },
      { id: 'inside', name: 'inside only', defaults: () => ({ brim: 'inner' }) },
      { id: 'never', name: 'never', defaults: () => ({ brim: 'none', firstLayerSpeed: 15 }) },
    ],
  },
  S7: {
    question: 'Speed',
    sides: [
      { id: 'flow', name: 'fast with enough flow' },
      {
        id: 'slow',
        name: 'slow everything',
        defaults: () => ({ outerWallSpeed: 30, innerWallSpeed: 40, infillSpeed: 50, topBottomSpeed: 35 }),
      },
      { id: 'shows', name: 'slow only what shows', defaults: () => ({ outerWallSpeed: 30 }) },
    ],
  },
  S8: {
    question: 'Default bore',
    sides: [
      { id: '0.4', name: '0.4 mm' },
      { id: '0.6', name: '0.6 mm with walls of varying width' },
    ],
  },
  S9: {
    question: 'Outer wall',
    sides: [
      { id: 'varies', name: 'let layer time vary it' },
      { id: 'constant', name: 'one constant speed', defaults: () => ({ layerTimeWalls: 'allButOuter' }) },
    ],
  },
  S10: {
    question: 'Remaining filament',
    sides: [
      { id: 'weigh', name: 'weigh' },
      { id: 'window', name: 'read the window' },
    ],
  },
  S11: {
    question: 'Tuning towers',
    sides: [
      { id: 'worth', name: 'where the print is worth it' },
      { id: 'always', name: 'always' },
      { id: 'never', name: 'never' },
    ],
  },
  S12: {
    question: 'Food contact',
    sides: [
      { id: 'care', name: 'with care' },
      { id: 'never', name: 'never' },
    ],
  },
}

/** Sides that somebody chose; a side that there is not, or no more, counts as none. */
export const chosenSchoolsSchema = z.partialRecord(z.enum(schoolIds), z.string().max(24))
export type ChosenSchools = z.infer<typeof chosenSchoolsSchema>

/** The side that holds: the chosen one, else the first. */
export function sideOf(id: SchoolId, chosen: ChosenSchools | undefined): Side {
  const { sides } = schools[id]
  return sides.find((side) => side.id === chosen?.[id]) ?? sides[0]
}

/** Whether somebody has chosen a side at all. */
export const isChosen = (id: SchoolId, chosen: ChosenSchools | undefined): boolean =>
  schools[id].sides.some((side) => side.id === chosen?.[id])

/** What the chosen sides say of settings; of those that were not chosen nothing. */
export const schoolDefaults = (chosen: ChosenSchools | undefined, ground: SchoolGround): SettingValues =>
  Object.assign({}, ...schoolIds.map((id) => (isChosen(id, chosen) ? (sideOf(id, chosen).defaults?.(ground) ?? {}) : {})))
