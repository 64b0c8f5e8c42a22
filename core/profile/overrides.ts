import { z } from 'zod'
import { type BeltLine, beltAt } from '../mesh/tiltedBelt'
import { InputError } from '../units/errors'
import { settings as definitions, type SettingName, type Settings, settingNames, settingValuesSchema } from './settings'

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
    box: z.object({ minX: z.number(), maxX: z.number(), minY: z.number(), maxY: z.number() }).optional(),
    /** On a tilted belt: only as near to the belt as this, mm. */
    nearBelt: z.number().positive().optional(),
    /** Every asked speed is multiplied by this. */
    speedPercent: z.number().min(1).max(1000).optional(),
    values: settingValuesSchema,
  })
  .superRefine(({ values, box, nearBelt }, context) => {
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
 * the place of a set in this list, so that one small number a move tells its settings however many overrides there are.
 */
export type OverrideSets = readonly (readonly number[])[]
const noOverrides: OverrideSets = [[]]

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
    this.found[scope] ??= this.list[scope]!.reduce((settings, i) => overridden(settings, this.overrides[i]!), this.settings)
    return this.found[scope]
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
    const key = scope * MOST_OVERRIDES + override
    let both = this.joined.get(key)
    if (both === undefined) {
      const set = this.list[scope]!
      both = set.includes(override) ? scope : this.scopeOf([...set, override].sort((a, b) => a - b))
      this.joined.set(key, both)
    }
    return both
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
      return [{ of: i, override, ...(belt ? onTiltedLayer(override, z, belt) : onLevelLayer(override)) }]
    })
  }
}

interface Rectangle {
  readonly minX: number
  readonly maxX: number
  readonly minY: number
  readonly maxY: number
}

/** A part of a layer in which an override holds: x and y between these, mm, without end where infinite. */
export interface Patch extends Rectangle {
  /** Its place in the list. */
  readonly of: number
  readonly override: Override
}

const isWhole = ({ box, nearBelt, fromZ, toZ }: Override, belt: BeltLine | undefined): boolean =>
  !box && nearBelt === undefined && (!belt || (fromZ === 0 && toZ === undefined))

/** Nearness to a belt means nothing on a level bed, where every place is as far from one. */
const onLevelLayer = ({ box }: Override): Rectangle => box ?? { minX: -Infinity, maxX: Infinity, minY: -Infinity, maxY: Infinity }

/**
 * Where a place of the part lies in a tilted layer: turned with it, its heights become a range along the gantry. With the
 * angle α between gantry and belt and n = z − start·tan α, a point of the layer at y is n·sin α − y·cos α along the belt
 * and y·sin α + n·cos α above it; x runs the other way (see toBeltFrame).
 */
function onTiltedLayer({ box, fromZ, toZ, nearBelt }: Override, z: number, belt: BeltLine): Rectangle {
  const angle = Math.atan2(1, -belt.slope)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const n = z + belt.start / belt.slope
  const along = (y: number): number => (n * sin - y) / cos
  const above = (height: number): number => (height - n * cos) / sin
  return {
    minX: -(box?.maxX ?? Infinity),
    maxX: -(box?.minX ?? -Infinity),
    minY: Math.max(box ? along(box.maxY) : -Infinity, fromZ > 0 ? above(fromZ) : -Infinity),
    maxY: Math.min(
      box ? along(box.minY) : Infinity,
      toZ === undefined ? Infinity : above(toZ),
      nearBelt === undefined ? Infinity : beltAt(belt, z) + nearBelt,
    ),
  }
}

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
