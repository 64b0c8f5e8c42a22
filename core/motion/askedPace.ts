import type { Settings } from '../profile/settings'
import { code, type Feature, features, isLaid } from '../toolpath/toolpath'

/** What is asked of every feature under one set of settings; arrays by feature code. */
export interface AskedPace {
  /** mm/s */
  readonly speed: Float64Array
  /** mm/s² */
  readonly acceleration: Float64Array
  /** Share of the asked speed by quarters of a line that hang over air. */
  readonly overAir: readonly [number, number, number, number]
  readonly settings: MotionSettings
}

export type MotionSettings = Pick<
  Settings,
  | 'outerWallSpeed'
  | 'smallLoopSpeed'
  | 'smallLoopLength'
  | 'innerWallSpeed'
  | 'infillSpeed'
  | 'topBottomSpeed'
  | 'bridgeSpeed'
  | 'ironingSpeed'
  | 'supportSpeed'
  | 'firstLayerSpeed'
  | 'slowFirstLayers'
  | 'travelSpeed'
  | 'acceleration'
  | 'outerWallAcceleration'
  | 'innerWallAcceleration'
  | 'topBottomAcceleration'
  | 'infillAcceleration'
  | 'firstLayerAcceleration'
  | 'travelAcceleration'
  | 'cornerSpeed'
  | 'overhangSpeed25'
  | 'overhangSpeed50'
  | 'overhangSpeed75'
  | 'minLayerTime'
  | 'layerTimeWalls'
  | 'floorSpeed'
  | 'flowLimit'
  | 'retractLength'
  | 'retractSpeed'
  | 'pushBackSpeed'
  | 'wipeRetractFirst'
>

export function askedPace(settings: MotionSettings): AskedPace {
  const speeds: Record<Feature, number> = {
    travel: settings.travelSpeed,
    retract: settings.retractSpeed,
    pushBack: settings.pushBackSpeed,
    wipe: settings.travelSpeed,
    coast: settings.outerWallSpeed,
    outerWall: settings.outerWallSpeed,
    innerWall: settings.innerWallSpeed,
    thin: settings.outerWallSpeed,
    topBottom: settings.topBottomSpeed,
    bridge: settings.bridgeSpeed,
    ironing: settings.ironingSpeed,
    infill: settings.infillSpeed,
    support: settings.supportSpeed,
    supportTop: settings.supportSpeed,
    foot: settings.firstLayerSpeed,
  }
  const own: Partial<Record<Feature, number>> = {
    outerWall: settings.outerWallAcceleration,
    thin: settings.outerWallAcceleration,
    innerWall: settings.innerWallAcceleration,
    topBottom: settings.topBottomAcceleration,
    bridge: settings.topBottomAcceleration,
    ironing: settings.topBottomAcceleration,
    infill: settings.infillAcceleration,
  }
  return {
    settings,
    speed: Float64Array.from(features, (feature) => speeds[feature]),
    acceleration: Float64Array.from(features, (feature, i) =>
      isLaid(i) || i === code.coast ? own[feature] || settings.acceleration : settings.travelAcceleration,
    ),
    overAir: [1, settings.overhangSpeed25 / 100, settings.overhangSpeed50 / 100, settings.overhangSpeed75 / 100],
  }
}
