import { limiterReasons } from '../motion/limiters'
import type { TimeFigures } from '../motion/timeFigures'
import { settings as definitions } from '../profile/settings'
import { isFilled } from '../shelf/material'
import { filamentArea } from '../units/flow'
import { count, type Finding, type Rule, round } from './check'

const speedSettings = {
  outerWall: 'outerWallSpeed',
  innerWall: 'innerWallSpeed',
  topBottom: 'topBottomSpeed',
  infill: 'infillSpeed',
  bridge: 'bridgeSpeed',
  support: 'supportSpeed',
} as const

/** Where the flow limit holds more than this share of the laying, thicker or wider lines gain nothing. */
const FLOW_BINDS = 0.5
/** Melt load from which a hotter nozzle is worth a word; semi-empirical. */
const HEAVY_LOAD = 0.75

const reasons: Readonly<Record<TimeFigures['realSpeeds']['topBottom']['limiter'], string>> = {
  asked: '',
  firstLayer: 'The first layer holds it back.',
  flow: 'The flow limit holds it back.',
  axis: 'The speed of an axis holds it back.',
  extruder: 'The feed of the extruder holds it back.',
  override: 'An override holds it back.',
  corner: 'Its corners hold it back.',
  acceleration: 'Most lines are too short to get up to speed at this acceleration.',
  layerTime: 'Most layers are slowed for their least time.',
}

/** What the hot end melts against what is asked of it. */
export const flowChecks: readonly Rule[] = [
  {
    id: 'held-back',
    severity: 'note',
    find: ({ time, resolved }) =>
      (Object.keys(speedSettings) as (keyof typeof speedSettings)[]).flatMap((feature): Finding[] => {
        const { speedMmS, limiter } = time.realSpeeds[feature]
        const setting = speedSettings[feature]
        const asked = resolved.settings[setting]
        if (speedMmS === 0 || speedMmS > 0.95 * asked || limiter === 'asked') return []
        return [
          {
            of: feature,
            setting,
            evidence: `${definitions[setting].label}: asked ${asked}, gets ${Math.round(speedMmS)} mm/s.`,
            means: reasons[limiter],
            todo: '',
            fix: { values: { [setting]: Math.max(1, Math.round(speedMmS)) } },
          },
        ]
      }),
  },
  {
    id: 'plastic-missing',
    severity: 'caution',
    setting: 'nozzleTemperature',
    find: ({ melt, resolved: { settings }, setup }) => {
      if (melt.layersShort === 0) return
      const hotter = settings.nozzleTemperature + 10
      return {
        atZMm: melt.highestAtZMm,
        evidence: `${count(melt.layersShort, 'layer')} ${melt.layersShort === 1 ? 'asks' : 'ask'} for more plastic than the hot end melts at ${settings.nozzleTemperature} °C, worst at z ${melt.highestAtZMm.toFixed(1)} mm (${Math.round(100 * melt.highest)} % of the ${melt.failsAt.toFixed(0)} mm³/s at which it fails).`,
        means: 'Walls come out thin, matte and weak there.',
        todo: `10 °C more would carry ${melt.failsAtPlus[1].toFixed(0)} mm³/s; or lower the flow limit.`,
        fix: hotter <= setup.printer.hotEnd.maxTemperature ? { values: { nozzleTemperature: hotter } } : undefined,
      }
    },
  },
  {
    id: 'flow-limit-lifted',
    severity: 'caution',
    setting: 'flowLimit',
    find: ({ melt, resolved: { settings } }) => {
      if (settings.flowLimit <= melt.failsAt) return
      return {
        evidence: `The profile allows ${settings.flowLimit} mm³/s; the hot end fails at ${melt.failsAt.toFixed(1)} mm³/s (${melt.basis}).`,
        means: 'Nothing then slows what cannot be melted.',
        todo: 'Ask for 85 % of it at most, or measure a flow ladder.',
        fix: { values: { flowLimit: round(0.85 * melt.failsAt, 1) } },
      }
    },
  },
  {
    id: 'flow-pays-no-more',
    severity: 'note',
    setting: 'layerHeight',
    find: ({ time, resolved: { settings } }) =>
      time.limiters.flow < FLOW_BINDS
        ? undefined
        : {
            evidence: `${Math.round(100 * time.limiters.flow)} % of the laying ${limiterReasons.flow}, at ${settings.flowLimit} mm³/s.`,
            means: 'Thicker layers or wider lines gain no time any more; they only cost surface.',
            todo: 'Keep the layers thin, or raise what the hot end melts: hotter, or a longer melt zone.',
          },
  },
  {
    id: 'feed-beyond-extruder',
    severity: 'note',
    setting: 'flowLimit',
    find: ({ setup: { printer }, resolved: { settings } }) => {
      const most = printer.limits.extruderSpeed * filamentArea(printer.filamentDiameter)
      if (settings.flowLimit <= most) return
      return {
        evidence: `${settings.flowLimit} mm³/s need ${(settings.flowLimit / filamentArea(printer.filamentDiameter)).toFixed(0)} mm/s of filament; the firmware feeds ${printer.limits.extruderSpeed}.`,
        means: 'The feed holds before the flow limit does.',
        todo: '',
        fix: { values: { flowLimit: Math.floor(most) } },
      }
    },
  },
  {
    id: 'cool-for-the-pace',
    severity: 'note',
    setting: 'nozzleTemperature',
    of: { school: 'S3', fix: 'hotter', other: 'middle' },
    school: 'Some stay at the middle of the label whatever the pace; some go hotter the faster they print.',
    find: ({ melt, setup: { material }, resolved: { settings } }) => {
      const [low, high] = material.nozzleRange
      const middle = (low + high) / 2
      if (melt.load95 < HEAVY_LOAD || settings.nozzleTemperature >= middle) return
      return {
        evidence: `${Math.round(100 * melt.load95)} % of what the hot end melts is asked at ${settings.nozzleTemperature} °C, in the lower half of the label.`,
        means: 'Layers bond less and walls turn matte.',
        todo: `Go to ${middle} °C, or slower at this heat.`,
        fix: { values: { nozzleTemperature: middle } },
        otherFix: { values: { flowLimit: round(Math.min(settings.flowLimit, HEAVY_LOAD * 0.95 * melt.failsAt), 1) } },
      }
    },
  },
  {
    id: 'filled-filament-slowed',
    severity: 'caution',
    setting: 'floorSpeed',
    of: { school: 'S2', fix: 'always', other: 'neverFilled' },
    school:
      'A least layer time for everything, or none at all for filled filament, which clogs when it is slow: the floor speed wins here.',
    find: ({ time, setup: { material }, resolved: { settings } }) => {
      // CP-M5, common practice: at least 40 mm/s.
      if (!isFilled(material) || time.layersSlowed === 0 || settings.floorSpeed >= 40) return
      return {
        evidence: `${count(time.layersSlowed, 'layer')} of ${material.name} ${time.layersSlowed === 1 ? 'is' : 'are'} slowed for the least layer time, down to ${settings.floorSpeed} mm/s.`,
        means: 'Filled filament clogs when it is laid slowly.',
        todo: 'Raise the floor speed to 40 mm/s, or ask for no least layer time.',
        fix: { values: { floorSpeed: 40 } },
        otherFix: { values: { minLayerTime: 0 } },
      }
    },
  },
]
