import type { StringFigures } from '../finish/strings'
import type { TopClosure } from '../finish/topClosure'
import type { UnproppedTop } from '../finish/unproppedTops'
import type { MeshReport } from '../mesh/repair'
import type { TimeFigures } from '../motion/timeFigures'
import type { PhysicsFigures } from '../physicsFigures'
import type { ResolvedSettings, Setup } from '../profile/resolve'
import { settings as definitions, type SettingName } from '../profile/settings'
import type { BeltLine } from '../slicing/tiltedBelt'
import type { SupportSwayFigures } from '../sway/supportSway'
import type { SwayFigures } from '../sway/sway'
import { copyPlaces } from '../toolpath/copyPaths'

/** Something a person should know before printing. */
export interface Check {
  readonly id: string
  readonly severity: 'note' | 'caution' | 'stop'
  /** The setting it concerns, where there is one. */
  readonly setting?: SettingName
  readonly message: string
}

/** What the checks look at. */
export interface Evidence {
  readonly setup: Setup
  readonly resolved: ResolvedSettings
  readonly sizeMm: readonly [number, number, number]
  /** Only on a tilted belt. */
  readonly belt?: BeltLine | undefined
  readonly mesh: Pick<MeshReport, 'watertight'>
  readonly time: TimeFigures
  /** Of the part itself, without supports and foot. */
  readonly laidVolumeMm3: number
  readonly layerCount: number
  /** Layers on which a separate piece of the model got no line. */
  readonly layersWithLostPieces: number
  /** Area that is too thin for any line, mm² summed over layers. */
  readonly lostMm2: number
  /** Overhang that supports may not reach, mm² summed over layers. */
  readonly unheldMm2: number
  /** Tops under which the infill has no line. */
  readonly unproppedTops: readonly UnproppedTop[]
  readonly melt: PhysicsFigures['melt']
  readonly cooling: PhysicsFigures['cooling']
  readonly gloss: PhysicsFigures['gloss']
  readonly sway: SwayFigures
  readonly supportSway: SupportSwayFigures
  readonly topClosure: TopClosure
  readonly strings: StringFigures
}

type Rule = (evidence: Evidence) => Check | Check[] | undefined

/** A layer higher than this share of the bore hardly presses onto the one below; common practice. */
const HIGHEST_LAYER = 0.875
/** Pushing filament forward faster than this makes motors skip, mm/s; common practice. */
const SAFE_PUSH_BACK = 30

/** Lost detail of less than this share of the part is the rounding of corners. */
const LEAST_LOST = 0.002
/** Overhang lines that droop over less than this, mm, do not show. */
const LEAST_DROOP = 20
/** A change of gloss of less than this between two layers does not show; semi-empirical. */
const VISIBLE_BAND = 0.25
/** Index from which strings are worth a word; semi-empirical. */
const MANY_STRINGS = 1

/** Overhang of less than this, mm² over all layers, is not worth a word. */
const LEAST_UNHELD = 2

const speedSettings = {
  outerWall: 'outerWallSpeed',
  innerWall: 'innerWallSpeed',
  skin: 'skinSpeed',
  infill: 'infillSpeed',
  bridge: 'bridgeSpeed',
  support: 'supportSpeed',
} as const

const rules: readonly Rule[] = [
  ({ setup, sizeMm }) => {
    // A belt has no end in its own direction.
    const axes = setup.printer.kinematics === 'tiltedBelt' ? [0, 2] : [0, 1, 2]
    const over = axes.filter((k) => sizeMm[k]! > setup.printer.buildVolume[k]!)
    if (over.length === 0) return
    const which = over.map((k) => `${'XYZ'[k]} ${sizeMm[k]!.toFixed(1)} mm of ${setup.printer.buildVolume[k]} mm`).join(', ')
    return {
      id: 'larger-than-printer',
      severity: 'stop',
      message: `The part does not fit ${setup.printer.name}: ${which}. Turn it, scale it down or choose another printer.`,
    }
  },
  ({ laidVolumeMm3 }) =>
    laidVolumeMm3 > 0
      ? undefined
      : {
          id: 'nothing-laid',
          severity: 'stop',
          setting: 'lineWidth',
          message: 'No line fits anywhere into this part. Use a narrower line or scale the part up.',
        },
  ({ layersWithLostPieces, laidVolumeMm3, layerCount }) =>
    layersWithLostPieces === 0 || laidVolumeMm3 === 0
      ? undefined
      : {
          id: 'thinner-than-a-line',
          severity: 'caution',
          setting: 'lineWidth',
          message: `On ${layersWithLostPieces} of ${layerCount} layers a piece of the model is thinner than a line and is not laid. Use a narrower line to keep it.`,
        },
  ({ lostMm2, laidVolumeMm3, layersWithLostPieces, resolved }) =>
    lostMm2 * resolved.settings.layerHeight < LEAST_LOST * laidVolumeMm3 || layersWithLostPieces > 0
      ? undefined
      : {
          id: 'detail-lost',
          severity: 'note',
          setting: 'leastLineWidth',
          message: `Places thinner than ${resolved.settings.leastLineWidth} mm get no line: ${Math.round(lostMm2)} mm², summed over the layers.`,
        },
  ({ unproppedTops }) => {
    const [largest] = [...unproppedTops].sort((a, b) => b.areaMm2 - a.areaMm2)
    if (!largest) return
    const [x, y, z] = largest.at.map((mm) => mm.toFixed(1))
    return {
      id: 'top-without-infill',
      severity: 'caution',
      setting: 'infillShiftX',
      message: `${count(unproppedTops.length, 'top')} ${unproppedTops.length === 1 ? 'has' : 'have'} no infill line underneath, the largest of ${Math.round(largest.areaMm2)} mm² at x ${x}, y ${y}, z ${z} mm. Shift or turn the infill, or lay it denser.`,
    }
  },
  ({ unheldMm2, resolved }) =>
    unheldMm2 < LEAST_UNHELD
      ? undefined
      : {
          id: 'overhang-unheld',
          severity: 'caution',
          setting: 'supportFrom',
          message: `Supports from the ${resolved.settings.supportFrom === 'bed' ? 'bed alone' : 'places allowed'} do not reach ${Math.round(unheldMm2)} mm² of overhang.`,
        },
  ({ setup, sizeMm, resolved, belt }) => {
    const { copies } = resolved.settings
    if (copies === 1) return
    const places = copyPlaces(sizeMm, resolved.settings, belt)
    const spread = [0, 1].map(
      (k) => Math.max(...places.map((place) => place[k]!)) - Math.min(...places.map((place) => place[k]!)) + sizeMm[k]!,
    )
    const over = [0, ...(belt ? [] : [1])].filter((k) => spread[k]! > setup.printer.buildVolume[k]!)
    if (over.length === 0) return
    return {
      id: 'copies-do-not-fit',
      severity: 'stop',
      setting: 'copies',
      message: `${copies} copies need ${spread.map((mm) => mm.toFixed(0)).join(' × ')} mm; ${setup.printer.name} has ${setup.printer.buildVolume.slice(0, 2).join(' × ')} mm. Print fewer, or nearer to each other.`,
    }
  },
  ({ setup, sizeMm, resolved }) => {
    const { copies, copyOrder, copyGap } = resolved.settings
    const { clearance } = setup.printer
    if (copies === 1 || copyOrder === 'together' || !clearance) return
    if (copyGap >= clearance.radius || sizeMm[2] <= clearance.height) return
    return {
      id: 'head-hits-copy',
      severity: 'stop',
      setting: 'copyGap',
      message: `One at a time, the head of ${setup.printer.name} would hit finished copies: it needs ${clearance.radius} mm to every side of parts higher than ${clearance.height} mm. Set the gap to ${clearance.radius} mm, or print together.`,
    }
  },
  ({ setup, resolved }) => {
    const asked = resolved.settings.nozzleTemperature
    const most = setup.printer.hotEnd.maxTemperature
    if (asked > most)
      return {
        id: 'hot-end-too-hot',
        severity: 'stop',
        setting: 'nozzleTemperature',
        message: `${setup.printer.name} goes to ${most} °C; ${asked} °C is asked.`,
      }
  },
  ({ setup, resolved }) =>
    outsideLabel(setup.material.name, 'nozzleTemperature', resolved.settings.nozzleTemperature, setup.material.nozzleRange),
  ({ setup, resolved }) => outsideLabel(setup.material.name, 'bedTemperature', resolved.settings.bedTemperature, setup.material.bedRange),
  ({ setup, resolved }) => {
    const highest = setup.nozzle.bore * HIGHEST_LAYER
    if (resolved.settings.layerHeight <= highest) return
    return {
      id: 'layer-high-for-bore',
      severity: 'caution',
      setting: 'layerHeight',
      message: `${resolved.settings.layerHeight} mm layers from a ${setup.nozzle.bore} mm bore hardly press together; ${highest.toFixed(2)} mm is about the most.`,
    }
  },
  ({ time, resolved }) =>
    (Object.keys(speedSettings) as (keyof typeof speedSettings)[]).flatMap((feature): Check[] => {
      const { speedMmS, limiter } = time.realSpeeds[feature]
      const setting = speedSettings[feature]
      const asked = resolved.settings[setting]
      if (speedMmS === 0 || speedMmS > 0.95 * asked || limiter === 'asked') return []
      return [
        {
          id: `held-back-${feature}`,
          severity: 'note',
          setting,
          message: `${definitions[setting].label}: asked ${asked}, gets ${Math.round(speedMmS)} mm/s. ${reasons[limiter]}`,
        },
      ]
    }),
  ({ time }) =>
    time.layersTooFast === 0
      ? undefined
      : {
          id: 'layer-time-short',
          severity: 'caution',
          setting: 'floorSpeed',
          message: `${count(time.layersTooFast, 'layer')} ${time.layersTooFast === 1 ? 'is' : 'are'} done before the least layer time even at the floor speed. Print two at once or lower the floor speed.`,
        },
  ({ resolved }) =>
    resolved.settings.pushBackSpeed <= SAFE_PUSH_BACK
      ? undefined
      : {
          id: 'push-back-fast',
          severity: 'note',
          setting: 'pushBackSpeed',
          message: `Motors tend to skip when filament is pushed back faster than about ${SAFE_PUSH_BACK} mm/s.`,
        },
  ({ setup, resolved }) => {
    const most = setup.printer.limits.extruderSpeed
    if (resolved.settings.retractSpeed <= most) return
    return {
      id: 'retraction-beyond-firmware',
      severity: 'note',
      setting: 'retractSpeed',
      message: `The firmware feeds at ${most} mm/s at most; asking for ${resolved.settings.retractSpeed} does nothing more.`,
    }
  },
  ({ melt, resolved }) =>
    melt.layersShort === 0
      ? undefined
      : {
          id: 'plastic-missing',
          severity: 'caution',
          setting: 'nozzleTemperature',
          message: `${count(melt.layersShort, 'layer')} ${melt.layersShort === 1 ? 'asks' : 'ask'} for more plastic than the hot end melts at ${resolved.settings.nozzleTemperature} °C, worst at z ${melt.highestAtZMm.toFixed(1)} mm (${Math.round(100 * melt.highest)} % of the ${melt.failsAt.toFixed(0)} mm³/s at which it fails). 10 °C more would carry ${melt.failsAtPlus[1].toFixed(0)} mm³/s; or lower the flow limit.`,
        },
  ({ cooling }) =>
    cooling.tipsWarm === 0
      ? undefined
      : {
          id: 'tips-soft',
          severity: 'caution',
          setting: 'minLayerTime',
          message: `${count(cooling.tipsWarm, 'layer')} of small tips ${cooling.tipsWarm === 1 ? 'is' : 'are'} laid on while soft and may come out wavy: at z ${cooling.atZMm.toFixed(1)} mm a layer takes ${cooling.takesS.toFixed(1)} s and needs ${cooling.neededS.toFixed(1)} s. Give it that layer time, more fan, or print two parts at once.`,
        },
  ({ cooling, layerCount }) =>
    cooling.layersWarm === 0 || cooling.tipsWarm > 0
      ? undefined
      : {
          id: 'layers-soft',
          severity: 'note',
          setting: 'minLayerTime',
          message: `${cooling.layersWarm} of ${layerCount} layers are laid on before they bear, worst at z ${cooling.atZMm.toFixed(1)} mm: ${cooling.takesS.toFixed(1)} s of the ${cooling.neededS.toFixed(1)} s needed. More layer time, more fan or thinner layers help.`,
        },
  ({ cooling }) =>
    cooling.droopMm < LEAST_DROOP
      ? undefined
      : {
          id: 'overhang-droops',
          severity: 'note',
          setting: 'overhangFan50',
          message: `${Math.round(cooling.droopMm)} mm of line with half or more over air is laid on before it sets. More fan over air, or a longer layer time, helps.`,
        },
  ({ gloss }) =>
    gloss.band < VISIBLE_BAND
      ? undefined
      : {
          id: 'gloss-band',
          severity: 'note',
          setting: 'layerTimeWalls',
          message: `A band of other gloss will show at z ${gloss.bandAtZMm.toFixed(1)} mm, where the outer wall changes its pace. Slow it last for the layer time, or give it a speed that no layer needs to lower.`,
        },
  ({ sway }) =>
    sway.slowAboveZMm === undefined
      ? undefined
      : {
          id: 'part-sways',
          severity: 'caution',
          setting: 'outerWallSpeed',
          message: `From z ${sway.slowAboveZMm.toFixed(0)} mm on the part gives way under the nozzle by more than a quarter of a line, ${sway.topMm.toFixed(2)} mm at its top. Slow it there by an exception, lift on travel, or lay it down.`,
        },
  ({ supportSway, resolved }) =>
    supportSway.mostMm <= resolved.settings.lineWidth
      ? undefined
      : {
          id: 'support-sways',
          severity: 'caution',
          setting: resolved.settings.supports === 'branching' ? 'trunkDiameter' : 'supportDensity',
          message: `A lone support gives way under the nozzle by ${supportSway.mostMm.toFixed(1)} mm at z ${supportSway.atZMm.toFixed(0)} mm and may break. Widen the trunk (15 to 35 mm at its base), slow supports to about 25 mm/s, lift on travel, and give it an inner and an outer brim.`,
        },
  ({ topClosure, resolved }) =>
    resolved.settings.topLayers === 0 ||
    topClosure.gapMm === undefined ||
    topClosure.closure >= 1 ||
    resolved.settings.infillPattern === 'topPropping'
      ? undefined
      : {
          id: 'top-stays-open',
          severity: 'note',
          setting: 'topLayers',
          message: `Tops are ${topClosure.thicknessMm.toFixed(2)} mm thick and must bridge ${topClosure.gapMm.toFixed(1)} mm between infill lines: they may sag or stay open. One more top layer, or denser infill, closes them.`,
        },
  ({ strings }) =>
    strings.index < MANY_STRINGS
      ? undefined
      : {
          id: 'strings',
          severity: 'note',
          setting: 'retractLength',
          message: `The nozzle travels ${strings.openM.toFixed(1)} m over open air with filament at its mouth and ${strings.pulledM.toFixed(1)} m with it pulled back: expect strings. Dry the filament first, then try a cooler nozzle or a longer retraction.`,
        },
  ({ mesh }) =>
    mesh.watertight
      ? undefined
      : { id: 'mesh-open', severity: 'note', message: 'The model is not watertight; what was done about it is listed with the part.' },
  ({ setup }) =>
    setup.material.family === 'ABS'
      ? {
          id: 'fumes',
          severity: 'caution',
          message: 'ABS gives off fumes and particles: ventilate the room, and do not sit beside the printer.',
        }
      : undefined,
]

const reasons: Readonly<Record<TimeFigures['realSpeeds']['skin']['limiter'], string>> = {
  asked: '',
  firstLayer: 'The first layer holds it back.',
  flow: 'The flow limit holds it back.',
  axis: 'The speed of an axis holds it back.',
  extruder: 'The feed of the extruder holds it back.',
  exception: 'An exception holds it back.',
  corner: 'Its corners hold it back.',
  acceleration: 'Most lines are too short to get up to speed at this acceleration.',
  layerTime: 'Most layers are slowed for their least time.',
}

/** Runs every check; the gravest come first. */
export function runChecks(evidence: Evidence): Check[] {
  const order = ['stop', 'caution', 'note']
  return rules.flatMap((rule) => rule(evidence) ?? []).sort((a, b) => order.indexOf(a.severity) - order.indexOf(b.severity))
}

function outsideLabel(
  material: string,
  setting: 'nozzleTemperature' | 'bedTemperature',
  value: number,
  [low, high]: readonly [number, number],
): Check | undefined {
  if (value >= low && value <= high) return
  return {
    id: `${setting}-outside-label`,
    severity: 'caution',
    setting,
    message: `${value} °C lies outside what ${material} is sold for: ${low}–${high} °C.`,
  }
}

const count = (n: number, noun: string): string => `${n} ${noun}${n === 1 ? '' : 's'}`
