import type { SettingValues } from '../profile/settings'
import { resolveSettings, type Setup } from '../setup/resolve'

/** A profile that is tried for somebody who has none yet. */
export interface Try {
  readonly name: string
  /** What it is tried for. */
  readonly aim: 'fast' | 'smooth' | 'strong' | 'everyday'
  readonly values: SettingValues
}

/** Layer heights as shares of the bore: from fine to as thick as bonds (CP-N3, common practice). */
const heights = { fine: 0.25, usual: 0.5, thick: 0.7 } as const
/** Thickness of solid layers that closes a top, mm; common practice. */
const SOLID_MM = 0.8

/**
 * Profiles that common practice would try first on a machine with a material, from fast to strong; what is not said in them comes from
 * the shelf.
 *
 * @param supports whether the part hangs over so that practice would hold it up
 */
export function triesFor(setup: Setup, supports: boolean): Try[] {
  const { bore } = setup.nozzle
  const { settings } = resolveSettings(setup, {})
  const own = (share: number): { layerHeight: number; topLayers: number; bottomLayers: number } => {
    const layerHeight = Math.max(0.04, Math.round(100 * bore * share) / 100)
    const solid = Math.max(2, Math.ceil(SOLID_MM / layerHeight - 1e-9))
    return { layerHeight, topLayers: solid, bottomLayers: Math.max(2, solid - 1) }
  }
  // As fast as the hot end melts at this line, and as the machine moves.
  const paceAt = (share: number, of: number): number => {
    const most = Math.min(
      settings.flowLimit / (own(share).layerHeight * settings.lineWidth),
      setup.printer.limits.speed.x,
      setup.printer.limits.speed.y,
    )
    return Math.max(10, Math.floor(of * most))
  }
  const speeds = (share: number, outer: number, rest: number): SettingValues => ({
    outerWallSpeed: paceAt(share, outer),
    innerWallSpeed: paceAt(share, rest),
    infillSpeed: paceAt(share, rest),
    topBottomSpeed: paceAt(share, rest * 0.8),
  })
  // A material that says its own pace is laid at that: flexible, filled.
  const isPaced = setup.material.defaults.outerWallSpeed !== undefined
  const fast = (share: number, walls: number): SettingValues => ({
    ...own(share),
    wallCount: walls,
    infillDensity: 10,
    infillPattern: 'lines',
    ...(isPaced ? {} : speeds(share, 0.7, 0.9)),
  })
  const smooth = (share: number, slow: number): SettingValues => ({
    ...own(share),
    wallCount: 3,
    infillDensity: 15,
    ...(isPaced ? {} : { outerWallSpeed: Math.min(slow, paceAt(share, 1)) }),
    seam: 'hidden',
  })
  const strong = (walls: number, density: number, share: number = heights.usual): SettingValues => ({
    ...own(share),
    wallCount: walls,
    infillDensity: density,
    infillPattern: 'gyroid',
  })
  const held: SettingValues = supports ? { supports: 'plain' } : {}
  const all: readonly Try[] = [
    { name: 'everyday', aim: 'everyday', values: { ...own(heights.usual), wallCount: 3, infillDensity: 15 } },
    { name: 'thick and fast', aim: 'fast', values: fast(heights.thick, 2) },
    { name: 'fast', aim: 'fast', values: fast(heights.usual, 2) },
    { name: 'fast, three walls', aim: 'fast', values: fast(0.6, 3) },
    { name: 'fine', aim: 'smooth', values: smooth(heights.fine, 40) },
    { name: 'fine and slow', aim: 'smooth', values: smooth(heights.fine, 25) },
    { name: 'fairly fine', aim: 'smooth', values: smooth(0.35, 30) },
    { name: 'four walls', aim: 'strong', values: strong(4, 20) },
    { name: 'six walls', aim: 'strong', values: strong(6, 25) },
    { name: 'six walls, thicker layers', aim: 'strong', values: strong(6, 20, 0.6) },
  ]
  return all.map((one) => ({ ...one, values: { ...one.values, ...held } }))
}
