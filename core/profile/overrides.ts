import { z } from 'zod'
import { type BeltLine, beltAt } from '../mesh/tiltedBelt'
import { settings as definitions, type SettingName, type Settings, settingNames, settingValuesSchema } from './settings'

/** Most overrides of one profile: each has a bit of its own in every move. */
export const MOST_OVERRIDES = 8

/** Where a setting can have another value: anywhere, on whole layers only, or nowhere but on the whole part. */
export function reachOf(name: SettingName): 'place' | 'layers' | 'part' {
  const { group, stage } = definitions[name]
  if (group === 'Supports' || group === 'First layer and brim' || name === 'infillEvery') return 'part'
  return stage === 'layers' || layerWide.has(name) ? 'layers' : 'place'
}

/** A layer is slowed as a whole, and heat does not change from line to line. */
const layerWide: ReadonlySet<SettingName> = new Set(['minLayerTime', 'layerTimeWalls', 'floorSpeed', 'nozzleTemperature', 'bedTemperature'])

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

/** Which settings hold where: the profile's own, changed by every override that covers the place, in their order. */
export class Scopes {
  private readonly known = new Map<number, Settings>()

  constructor(
    readonly settings: Settings,
    readonly overrides: readonly Override[] = [],
  ) {}

  /** Settings for a set of overrides, a bit for each. */
  settingsOf(scope: number): Settings {
    if (scope === 0) return this.settings
    let found = this.known.get(scope)
    if (!found) {
      found = this.overrides.reduce(
        (settings, override, i) => ((scope >> i) & 1 ? overridden(settings, override) : settings),
        this.settings,
      )
      this.known.set(scope, found)
    }
    return found
  }

  /** Overrides that cover a whole layer at this height. Layers of a tilted belt pass through all heights of the part. */
  ofLayer(z: number, belt?: BeltLine): number {
    return this.overrides.reduce((scope, e, i) => (isWhole(e, belt) && (belt || reaches(e, z)) ? scope | (1 << i) : scope), 0)
  }

  /** Overrides at this height that cover a part of the layer only. */
  partialAt(z: number, belt?: BeltLine): Patch[] {
    return this.overrides.flatMap((override, i) => {
      if (isWhole(override, belt) || !(belt || reaches(override, z))) return []
      return [{ bit: 1 << i, override, ...(belt ? onTiltedLayer(override, z, belt) : onLevelLayer(override)) }]
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
  readonly bit: number
  readonly override: Override
}

const isWhole = ({ box, nearBelt, fromZ, toZ }: Override, belt: BeltLine | undefined): boolean =>
  !box && nearBelt === undefined && (!belt || (fromZ === 0 && toZ === undefined))

/** Nearness to a belt means nothing on a level bed, where every place is as far from one. */
const onLevelLayer = ({ box }: Override): Rectangle => box ?? { minX: -Infinity, maxX: Infinity, minY: -Infinity, maxY: Infinity }

/**
 * Where a place of the part lies in a tilted layer: turned with it, its heights become a range along the gantry. With the
 * angle α between gantry and belt and n = z + start·tan α, a point of the layer at y is y·cos α + n·sin α along the belt
 * and y·sin α − n·cos α above it; x runs the other way (see toBeltFrame).
 */
function onTiltedLayer({ box, fromZ, toZ, nearBelt }: Override, z: number, belt: BeltLine): Rectangle {
  const angle = Math.atan2(1, belt.slope)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const n = z + belt.start / belt.slope
  const along = (y: number): number => (y - n * sin) / cos
  const above = (height: number): number => (height + n * cos) / sin
  return {
    minX: -(box?.maxX ?? Infinity),
    maxX: -(box?.minX ?? -Infinity),
    minY: Math.max(box ? along(box.minY) : -Infinity, fromZ > 0 ? above(fromZ) : -Infinity),
    maxY: Math.min(
      box ? along(box.maxY) : Infinity,
      toZ === undefined ? Infinity : above(toZ),
      nearBelt === undefined ? Infinity : beltAt(belt, z) + nearBelt,
    ),
  }
}

const reaches = ({ fromZ, toZ }: Override, z: number): boolean => z >= fromZ && z < (toZ ?? Infinity)

function overridden(settings: Settings, { values, speedPercent }: Override): Settings {
  const changed: Record<string, number | string> = { ...settings, ...values }
  if (speedPercent !== undefined)
    for (const name of speedNames as SettingName[]) changed[name] = (Number(changed[name]) * speedPercent) / 100
  return changed as Settings
}
