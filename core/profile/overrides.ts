import { z } from 'zod'
import type { BeltLine } from '../mesh/tiltedBelt'
import { InputError } from '../units/errors'
import { onLevelLayer, onTiltedLayer, type Patch } from './patch'
import { settings as definitions, type SettingName, type Settings, settingNames, settingValuesSchema } from './settings'
import { GREYS, speedOfGrey, speedPictureSchema } from './speedPicture'

/** Most overrides of one profile: a tower of a hundred bands, and some. */
export const MOST_OVERRIDES = 128

/** Of supports and brims what may differ from place to place; how they stand and keep off belongs to all of them. */
const ofPlaces: ReadonlySet<SettingName> = new Set([
  'brim',
  'brimWidth',
  'supports',
  'supportAngle',
  'supportDensity',
  'supportPattern',
  'supportSpeed',
])
const ofWholePart: ReadonlySet<SettingName> = new Set([
  'infillEvery',
  'spiralWall',
  'bodyOrder',
  'bottomPattern',
  'fanFromLayer',
  'fanRampLayers',
])

/** Where a setting can have another value: anywhere, on whole layers only, or nowhere but on the whole part. */
export function reachOf(name: SettingName): 'place' | 'layers' | 'part' {
  const { group, stage } = definitions[name]
  if (ofPlaces.has(name)) return 'place'
  if (group === 'Supports' || group === 'First layer and brim' || ofWholePart.has(name)) return 'part'
  return stage === 'layers' || layerWide.has(name) ? 'layers' : 'place'
}

/** A layer is slowed as a whole, and heat does not change from line to line. */
const layerWide: ReadonlySet<SettingName> = new Set(['minLayerTime', 'layerTimeWalls', 'floorSpeed', 'nozzleTemperature', 'heatChange'])

/**
 * A place where other values hold: between two heights, within a box of them, or near the belt of a tilted machine.
 * Lengths in mm, in the frame of the part as it stands on the bed: its middle at x = y = 0, the bed at z = 0.
 */
export const overrideSchema = z
  .object({
    name: z.string().trim().min(1).max(60),
    fromZ: z.number().min(0),
    /** Absent: to the top. */
    toZ: z.number().positive().optional(),
    /** Upright, and turned about its own middle, ° counter-clockwise seen from above. */
    box: z
      .object({ minX: z.number(), maxX: z.number(), minY: z.number(), maxY: z.number(), turn: z.number().min(-180).max(180).optional() })
      .optional(),
    /** On a tilted belt: only as near to the belt as this, mm. */
    nearBelt: z.number().positive().optional(),
    /** Every asked speed is multiplied by this. */
    speedPercent: z.number().min(1).max(1000).optional(),
    /** A grey picture that sets the speed of the outer wall there. */
    picture: speedPictureSchema.optional(),
    values: settingValuesSchema,
  })
  .superRefine(({ values, box, nearBelt, fromZ, toZ, picture }, context) => {
    if (picture && !(toZ !== undefined && toZ > fromZ))
      context.addIssue({
        code: 'custom',
        path: ['toZ'],
        message: 'A picture needs a height that it ends at, above the one that it begins at',
      })
    if (picture?.lay === 'laid' && !box)
      context.addIssue({ code: 'custom', path: ['box'], message: 'A picture that is laid on needs a box on whose front it lies' })
    for (const name of Object.keys(values) as SettingName[]) {
      const reach = reachOf(name)
      const path = ['values', name]
      const { label } = definitions[name]
      if (reach === 'part') context.addIssue({ code: 'custom', path, message: `${label} belongs to the whole part: set it in the profile` })
      if (reach === 'layers' && (box || nearBelt !== undefined))
        context.addIssue({ code: 'custom', path, message: `${label} belongs to whole layers: give it heights and no box` })
    }
  })
export type Override = z.infer<typeof overrideSchema>
export const overridesSchema = z.array(overrideSchema).max(MOST_OVERRIDES)

const speedNames = settingNames.filter(
  (name) => name.endsWith('Speed') && !['cornerSpeed', 'floorSpeed', 'fanSpeed', 'retractSpeed', 'pushBackSpeed'].includes(name),
)

/**
 * Sets of overrides that hold together somewhere, each as their places in the list, ascending. The first is of none. A scope is
 * the place of a set in this list, so that one small number a move tells its settings however many overrides there are. The greys
 * of pictures are numbered on behind all overrides.
 */
export type OverrideSets = readonly (readonly number[])[]
const noOverrides: OverrideSets = [[]]

const MOST_MARKS = MOST_OVERRIDES * (1 + GREYS)
const markOf = (override: number, grey: number): number => MOST_OVERRIDES + GREYS * override + grey
/** The override and the grey of its picture that a number in a set stands for; no grey where it is the override itself. */
export const marked = (mark: number): { readonly override: number; readonly grey?: number } =>
  mark < MOST_OVERRIDES
    ? { override: mark }
    : { override: Math.floor((mark - MOST_OVERRIDES) / GREYS), grey: (mark - MOST_OVERRIDES) % GREYS }

/** The number that a mark becomes where its override stands so many places further down a list. */
export function shiftedMark(mark: number, by: number): number {
  const { override, grey } = marked(mark)
  return grey === undefined ? override + by : markOf(override + by, grey)
}

/** Most sets that 16 bits tell apart. */
const MOST_SETS = 0xffff

/** Which settings hold where: the profile's own, changed by every override that covers the place, in their order. */
export class Scopes {
  private readonly found: (Settings | undefined)[] = []
  private readonly list: (readonly number[])[]
  private readonly byKey: Map<string, number>
  private readonly joined = new Map<number, number>()

  /** @param sets that scopes have been told by before; more are added as they are met */
  constructor(
    readonly settings: Settings,
    readonly overrides: readonly Override[] = [],
    sets: OverrideSets = noOverrides,
  ) {
    this.list = [...sets]
    this.byKey = new Map(sets.map((set, scope) => [set.join(), scope]))
  }

  /** All sets that were met, by their scopes. */
  get sets(): OverrideSets {
    return this.list
  }

  /** Settings in a scope; 0 is where no override holds. */
  settingsOf(scope: number): Settings {
    if (scope === 0) return this.settings
    this.found[scope] ??= this.list[scope]!.reduce((settings, mark) => this.after(settings, mark), this.settings)
    return this.found[scope]
  }

  private after(settings: Settings, mark: number): Settings {
    const { override, grey } = marked(mark)
    const own = this.overrides[override]!
    if (grey === undefined) return overridden(settings, own)
    return own.picture ? { ...settings, outerWallSpeed: speedOfGrey(own.picture, grey) } : settings
  }

  /** Scope of a set. @throws InputError where more places overlap otherwise than can be told apart */
  scopeOf(set: readonly number[]): number {
    const key = set.join()
    let scope = this.byKey.get(key)
    if (scope === undefined) {
      scope = this.list.length
      if (scope > MOST_SETS) throw tooManySets()
      this.list.push(set)
      this.byKey.set(key, scope)
    }
    return scope
  }

  /** Scope in which an override holds beside those of another scope. */
  with(scope: number, override: number): number {
    const key = scope * MOST_MARKS + override
    let both = this.joined.get(key)
    if (both === undefined) {
      const set = this.list[scope]!
      both = set.includes(override) ? scope : this.scopeOf([...set, override].sort((a, b) => a - b))
      this.joined.set(key, both)
    }
    return both
  }

  /** Scope in which the outer wall runs as a grey of an override's picture asks. */
  withGrey(scope: number, override: number, grey: number): number {
    return this.with(scope, markOf(override, grey))
  }

  /** Pictures that lie on the layer at this height. On a tilted belt there are none: its layers lean over any picture. */
  picturesAt(z: number, belt?: BeltLine): { readonly of: number; readonly override: Override & Pictured }[] {
    if (belt) return []
    return this.overrides.flatMap((override, of) => (hasPicture(override) && reaches(override, z) ? [{ of, override }] : []))
  }

  /** Scope of what covers a whole layer at this height. Layers of a tilted belt pass through all heights of the part. */
  ofLayer(z: number, belt?: BeltLine): number {
    if (this.overrides.length === 0) return 0
    return this.scopeOf(this.overrides.flatMap((e, i) => (isWhole(e, belt) && (belt || reaches(e, z)) ? [i] : [])))
  }

  /** Overrides at this height that cover a part of the layer only. */
  partialAt(z: number, belt?: BeltLine): Patch[] {
    return this.overrides.flatMap((override, i) => {
      if (isWhole(override, belt) || !(belt || reaches(override, z))) return []
      return [{ of: i, override, sides: belt ? onTiltedLayer(override, z, belt) : onLevelLayer(override) }]
    })
  }
}

/** What is told of every override with a picture. */
type Pictured = Required<Pick<Override, 'picture' | 'toZ'>>
const hasPicture = (override: Override): override is Override & Pictured => override.picture !== undefined && override.toZ !== undefined

const isWhole = ({ box, nearBelt, fromZ, toZ }: Override, belt: BeltLine | undefined): boolean =>
  !box && nearBelt === undefined && (!belt || (fromZ === 0 && toZ === undefined))

const tooManySets = (): InputError =>
  new InputError(
    'too-many-overlaps',
    'More places with other values overlap in other ways than can be told apart.',
    'overrides',
    'Let fewer of them overlap, or join some into one.',
  )

const reaches = ({ fromZ, toZ }: Override, z: number): boolean => z >= fromZ && z < (toZ ?? Infinity)

function overridden(settings: Settings, { values, speedPercent }: Override): Settings {
  const changed: Record<string, number | string> = { ...settings, ...values }
  if (speedPercent !== undefined)
    for (const name of speedNames as SettingName[]) changed[name] = (Number(changed[name]) * speedPercent) / 100
  return changed as Settings
}
