import { definitionOf } from '../profile/settings'
import type { Material } from '../shelf/material'
import { type AskedHeat, hottestOf } from './askedHeats'
import { be, count, type Finding, type Rule } from './check'

/** Overhang lines that droop over less than this, mm, do not show. */
const LEAST_DROOP = 20
/** A change of gloss of less than this between two layers does not show; semi-empirical. */
const VISIBLE_BAND = 0.25
/** What sets the pace or the gloss of the outer wall. */
const PACED = [
  'outerWallSpeed',
  'outerWallAcceleration',
  'layerHeight',
  'lineWidth',
  'nozzleTemperature',
  'minLayerTime',
  'flowLimit',
] as const
/** A wall as slow as this need not be slowed for most layers, mm/s; common practice (CP-S2: 40 is glossy). */
const SLOW_WALL = 30
/** A plastic lining gives off harmful gas when it is hotter than this for long, °C; common practice. */
const LINING_BEARS = 240
/** Layers that get less of the time that they need than this, and so many of them, spoil a print; semi-empirical. */
const [FAR_TOO_SOON, MANY_SOFT] = [0.7, 10] as const
/** Most fan that a family bears without coming apart or warping, %; common practice (CP-M3, CP-M6). */
const mostFan: Partial<Readonly<Record<Material['family'], number>>> = { ABS: 30, PETG: 60, nylon: 30 }

/** " by the override X" */
const byWhom = ({ setting, override }: AskedHeat): string =>
  override !== undefined ? ` by the override "${override}"` : setting === 'firstLayerNozzle' ? ' for the first layer' : ''

/** An override is changed where it stands. */
const fixOf = ({ setting }: AskedHeat, to: number): Finding['fix'] => (setting ? { values: { [setting]: to } } : undefined)

/** Heat and cooling. */
export const heatChecks: readonly Rule[] = [
  {
    id: 'hot-end-too-hot',
    severity: 'stop',
    setting: 'nozzleTemperature',
    find: ({ setup: { printer }, heats }) => {
      const most = printer.hotEnd.maxTemperature
      const asked = hottestOf(heats)
      if (asked.celsius <= most) return
      return {
        evidence: `${printer.name} goes to ${most} °C; ${asked.celsius} °C is asked${byWhom(asked)}.`,
        means: '',
        todo: 'Set it lower, or choose a printer with another hot end.',
        fix: fixOf(asked, most),
      }
    },
  },
  {
    id: 'outside-label',
    severity: 'caution',
    find: ({ setup: { material, spool }, resolved: { settings } }) =>
      (
        [
          ['nozzleTemperature', material.nozzleRange],
          ['bedTemperature', material.bedRange],
          ['firstLayerNozzle', material.nozzleRange],
          ['firstLayerBed', material.bedRange],
        ] as const
      ).flatMap(([setting, [low, high]]): Finding[] => {
        const value = settings[setting]
        // 0 of the first layer follows the others.
        if (value >= low && value <= high) return []
        if (value === 0 && setting !== 'nozzleTemperature' && setting !== 'bedTemperature') return []
        return [
          {
            of: setting,
            setting,
            evidence: `${value} °C lies outside what ${spool?.name ?? material.name} is sold for: ${low}–${high} °C.`,
            means: value < low ? 'It may not melt or hold.' : 'It may decompose, string or sag.',
            todo: '',
            fix: { values: { [setting]: Math.min(high, Math.max(low, value)) } },
          },
        ]
      }),
  },
  {
    id: 'lining-overheats',
    severity: 'caution',
    setting: 'nozzleTemperature',
    find: ({ setup: { printer }, heats }) => {
      const asked = hottestOf(heats)
      if (printer.hotEnd.lining !== 'plastic' || asked.celsius <= LINING_BEARS) return
      return {
        evidence: `${asked.celsius} °C${byWhom(asked)} in a hot end that is lined with plastic.`,
        means: `Above some ${LINING_BEARS} °C the lining breaks down and gives off harmful gas.`,
        todo: 'Ventilate, go no hotter than that, or fit a metal hot end.',
        fix: fixOf(asked, LINING_BEARS),
      }
    },
  },
  {
    id: 'fan-against-material',
    severity: 'caution',
    setting: 'fanSpeed',
    find: ({ setup: { material }, resolved: { settings } }) => {
      const most = mostFan[material.family] ?? 100
      if (settings.fanSpeed <= most) return
      return {
        evidence: `${settings.fanSpeed} % fan on ${material.name}.`,
        means: material.family !== 'PETG' ? 'It warps and splits between layers.' : 'Its layers bond less.',
        todo: `${most} % is about the most; bridges and overhangs have a fan of their own.`,
        fix: { values: { fanSpeed: most === 30 ? 15 : 20 } },
      }
    },
  },
  {
    id: 'little-fan-on-pla',
    severity: 'note',
    setting: 'fanSpeed',
    of: { school: 'S1', fix: 'little', other: 'full' },
    school: 'Full fan from the second layer, or nearly none but on overhangs and bridges: strings then break instead of freezing.',
    find: ({ setup: { material }, resolved: { settings }, cooling }) =>
      material.family !== 'PLA' || settings.fanSpeed >= 50 || cooling.layersWarm === 0
        ? undefined
        : {
            evidence: `${settings.fanSpeed} % fan, and ${count(cooling.layersWarm, 'layer')} laid on while soft.`,
            means: 'Layers bond better, but edges and tips go soft.',
            // How much fan is a matter of schools; time helps in both.
            todo: 'More layer time helps in either school; more fan in one.',
            fix: { values: { minLayerTime: Math.min(600, Math.ceil(cooling.neededS)) } },
            otherFix: { values: { fanSpeed: 100 } },
          },
  },
  {
    id: 'enclosure-wanted',
    severity: 'caution',
    find: ({ setup: { material, printer } }) =>
      material.family !== 'ABS' || printer.enclosed
        ? undefined
        : {
            evidence: `${material.name} on ${printer.name}, which has no enclosure.`,
            means: 'It warps in a draught, and its fumes go into the room.',
            todo: 'Print it on an enclosed machine.',
          },
  },
  {
    id: 'tips-soft',
    severity: 'caution',
    setting: 'minLayerTime',
    find: ({ cooling }) =>
      cooling.tipsWarm === 0
        ? undefined
        : {
            atZMm: cooling.atZMm,
            evidence: `${count(cooling.tipsWarm, 'layer')} of small tips ${be(cooling.tipsWarm)} laid on while soft: at z ${cooling.atZMm.toFixed(1)} mm a layer takes ${cooling.takesS.toFixed(1)} s and needs ${cooling.neededS.toFixed(1)} s.`,
            means: 'They may come out wavy.',
            todo: 'Give it that layer time, more fan, or print two parts at once.',
            fix: { values: { minLayerTime: Math.min(600, Math.ceil(cooling.neededS)) } },
          },
  },
  {
    id: 'layers-soft',
    severity: 'note',
    setting: 'minLayerTime',
    find: ({ cooling, layerCount }) =>
      cooling.layersWarm === 0 || cooling.tipsWarm > 0
        ? undefined
        : {
            severity: cooling.margin < FAR_TOO_SOON && cooling.layersWarm >= MANY_SOFT ? 'caution' : 'note',
            atZMm: cooling.atZMm,
            evidence: `${cooling.layersWarm} of ${layerCount} layers are laid on before they bear, worst at z ${cooling.atZMm.toFixed(1)} mm: ${cooling.takesS.toFixed(1)} s of the ${cooling.neededS.toFixed(1)} s needed.`,
            means: 'What is laid on them sinks in, and edges curl.',
            todo: 'More layer time, more fan or thinner layers help.',
            fix: { values: { minLayerTime: Math.min(600, Math.ceil(cooling.neededS)) } },
          },
  },
  {
    id: 'overhang-droops',
    severity: 'note',
    setting: 'overhangFan50',
    find: ({ cooling, resolved: { settings } }) =>
      cooling.droopMm < LEAST_DROOP
        ? undefined
        : {
            evidence: `${Math.round(cooling.droopMm)} mm of line with half or more over air is laid on before it sets.`,
            means: 'It sags.',
            todo: 'More fan over air, or a longer layer time, helps.',
            fix: settings.overhangFan50 < 100 ? { values: { overhangFan50: 100, overhangFan75: 100 } } : undefined,
          },
  },
  {
    id: 'gloss-band',
    severity: 'note',
    setting: 'layerTimeWalls',
    of: { school: 'S9', silentTo: 'varies' },
    school: 'One constant speed for the outer wall, or whatever the layer time leaves: even gloss against cooling.',
    find: ({ gloss, overridden, time, resolved: { settings } }) => {
      if (gloss.band < VISIBLE_BAND) return
      const evidence = `Gloss changes by ${Math.round(100 * gloss.band)} % at z ${gloss.bandAtZMm.toFixed(1)} mm, where the outer wall changes its pace.`
      const found = { atZMm: gloss.bandAtZMm, evidence, means: 'A band will show.' }
      const by = PACED.find((name) => overridden.has(name))
      if (by)
        return {
          ...found,
          todo: `An override changes its ${definitionOf(by).label.toLowerCase()} there: change that, or let the band lie where it does not show.`,
        }
      // Without a layer that is slowed there is nothing that these would even out.
      if (time.layersSlowed === 0) return { ...found, todo: 'It follows the height of the layers, which follow the shape.' }
      return {
        ...found,
        todo: 'Slow the outer wall last for the layer time, or give it a speed that no layer needs to lower.',
        fix: { values: { layerTimeWalls: 'allButOuter' } },
        otherFix: { values: { outerWallSpeed: Math.max(SLOW_WALL, Math.round(settings.outerWallSpeed / 2)) } },
      }
    },
  },
]
