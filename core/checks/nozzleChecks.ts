import { isHard, misfit, sticksOut, wearOf } from '../shelf/nozzle'
import { type Rule, round } from './check'

/** A layer higher than this share of the bore hardly presses onto the one below; common practice (CP-N3). */
const HIGHEST_LAYER = 0.875
/** Thinner than this share of the bore a layer just manages (CP-N3, common practice: 0.05 mm from a 0.4 mm bore). */
const THINNEST_LAYER = 0.125
/** Lines from this share of the bore to that hold their shape; common practice (CP-N9: 0.6 mm from a 0.4 mm bore). */
const [NARROWEST, WIDEST] = [0.8, 1.5] as const
/** Fibres lie across smaller bores than this, mm (CP-N4, common practice). */
const FIBRE_BORE = 0.6
/** Below this dust clogs, above that the core stays cold, mm (CP-N1, common practice). */
const [DUST_BORE, COLD_BORE] = [0.25, 1] as const
/** PLA from such a bore wants this, °C (CP-N1, common practice). */
const COLD_BORE_HEAT = 250

/** A thread may be so much longer or shorter than its block, mm; semi-empirical. */
const LENGTH_PLAY = 1

/** Bore, body and line. */
export const nozzleChecks: readonly Rule[] = [
  {
    id: 'nozzle-does-not-fit',
    severity: 'stop',
    find: ({ setup: { nozzle, printer } }) => {
      const why = misfit(nozzle, printer)
      return why === undefined
        ? undefined
        : { evidence: `${nozzle.name} does not fit ${printer.name}. ${why}`, means: '', todo: 'Choose another nozzle or printer.' }
    },
  },
  {
    id: 'nozzle-length',
    severity: 'caution',
    find: ({ setup: { nozzle, printer } }) => {
      const out = sticksOut(nozzle, printer)
      if (out === undefined || Math.abs(out) <= LENGTH_PLAY) return
      // CP-N11, common practice.
      return {
        evidence: `The thread of ${nozzle.name} is ${nozzle.threadLength} mm long; the block of ${printer.name} takes ${printer.hotEnd.threadLength} mm.`,
        means: out > 0 ? 'What sticks out of the block stays cold.' : 'It leaves a gap in the block, which fills with plastic and leaks.',
        todo: 'Fit one of the block’s own length. It is changed hot: the right wrench, gloves, power off at the motors.',
      }
    },
  },
  {
    id: 'tip-brittle',
    severity: 'note',
    find: ({ setup: { nozzle } }) =>
      nozzle.body !== 'diamondTip'
        ? undefined
        : {
            evidence: `${nozzle.name} has a tip of gem.`,
            means: 'It wears hardly at all, but it is brittle: a blow, a crash into the bed or a dry wrench chips it.',
            todo: 'Keep it off the bed when it is levelled, and do not wipe it with steel.',
          },
  },
  {
    id: 'layer-high-for-bore',
    severity: 'caution',
    setting: 'layerHeight',
    find: ({ setup: { nozzle }, resolved: { settings } }) => {
      const highest = nozzle.bore * HIGHEST_LAYER
      if (settings.layerHeight <= highest) return
      return {
        evidence: `${settings.layerHeight} mm layers from a ${nozzle.bore} mm bore; ${highest.toFixed(2)} mm is about the most.`,
        means: 'They hardly press together.',
        todo: 'Lay them thinner, or take a larger bore.',
        fix: { values: { layerHeight: Math.floor(highest * 100) / 100 } },
      }
    },
  },
  {
    id: 'layer-thin-for-bore',
    severity: 'note',
    setting: 'layerHeight',
    find: ({ setup: { nozzle }, resolved: { settings } }) => {
      const thinnest = nozzle.bore * THINNEST_LAYER
      if (settings.layerHeight >= thinnest - 1e-9) return
      return {
        evidence: `${settings.layerHeight} mm layers from a ${nozzle.bore} mm bore; ${thinnest.toFixed(2)} mm is about the least.`,
        means: 'The flow gets uneven.',
        todo: 'Lay them thicker, or take a finer bore.',
        fix: { values: { layerHeight: Math.ceil(thinnest * 100) / 100 } },
      }
    },
  },
  {
    id: 'line-wide-for-bore',
    severity: 'caution',
    setting: 'lineWidth',
    find: ({ setup: { nozzle }, resolved: { settings } }) => {
      const widest = nozzle.bore * WIDEST
      if (settings.lineWidth <= widest + 1e-9) return
      return {
        evidence: `Lines of ${settings.lineWidth} mm from a ${nozzle.bore} mm bore; ${widest.toFixed(2)} mm is about the most.`,
        means: 'Wider than that the plastic does not reach its edges.',
        todo: 'Lay narrower lines, or take a larger bore.',
        fix: { values: { lineWidth: round(widest, 2) } },
      }
    },
  },
  {
    id: 'line-narrow-for-bore',
    severity: 'note',
    setting: 'lineWidth',
    find: ({ setup: { nozzle }, resolved: { settings } }) => {
      const narrowest = nozzle.bore * NARROWEST
      if (settings.lineWidth >= narrowest - 1e-9) return
      return {
        evidence: `Lines of ${settings.lineWidth} mm from a ${nozzle.bore} mm bore.`,
        means: 'The line is stretched and breaks off at corners.',
        todo: `Lay ${narrowest.toFixed(2)} mm or more, or take a finer bore.`,
        fix: { values: { lineWidth: round(narrowest, 2) } },
      }
    },
  },
  {
    id: 'wide-lines-same-walls',
    severity: 'note',
    setting: 'wallCount',
    find: ({ setup: { nozzle }, resolved: { settings, origins } }) => {
      const { lineWidth, wallCount } = settings
      // CP-N9, common practice: time is saved only once the count drops with it.
      const fewer = Math.max(2, Math.round((wallCount * nozzle.bore) / lineWidth))
      if (lineWidth < 1.2 * nozzle.bore || lineWidth > WIDEST * nozzle.bore || fewer >= wallCount || origins.lineWidth === 'nozzle') return
      return {
        evidence: `${wallCount} walls of ${lineWidth} mm are ${(wallCount * lineWidth).toFixed(1)} mm thick.`,
        means: 'Wide lines save time only when their number drops.',
        todo: `${fewer} walls are as thick as ${wallCount} were from the bore’s own width.`,
        fix: { values: { wallCount: fewer } },
      }
    },
  },
  {
    id: 'fibre-in-small-bore',
    severity: 'caution',
    find: ({ setup: { nozzle, material } }) =>
      !material.fibre || nozzle.bore >= FIBRE_BORE
        ? undefined
        : {
            evidence: `${material.name} holds fibres or wood; the bore is ${nozzle.bore} mm.`,
            means: 'They lie across small bores and block them.',
            todo: `Take ${FIBRE_BORE} mm or more${nozzle.bore < 0.4 ? ', and never less than 0.4 mm' : ''}.`,
          },
  },
  {
    id: 'abrasive-in-soft-nozzle',
    severity: 'caution',
    find: ({ setup: { nozzle, material } }) =>
      !material.abrasive || isHard(nozzle)
        ? undefined
        : {
            evidence: `${material.name} is abrasive; ${nozzle.name} is of ${nozzle.body === 'platedCopper' ? 'plated copper' : 'brass'}.`,
            means: 'Its bore widens with every hundred grams, and the lines with it.',
            todo: 'Fit a hard nozzle. It is changed hot: the right wrench, gloves, power off at the motors.',
          },
  },
  {
    id: 'nozzle-worn',
    severity: 'caution',
    find: ({ setup: { nozzle } }) => {
      const wear = wearOf(nozzle)
      if (wear < 1) return
      return {
        evidence: `${nozzle.abrasiveGrams} g of abrasive filament went through ${nozzle.name}.`,
        means: 'It is likely worn: its bore is wider than it says. Assumed.',
        todo: 'Measure a single wall, or fit a new one while it is hot, with gloves and the right wrench.',
      }
    },
  },
  {
    id: 'bore-clogs',
    severity: 'note',
    find: ({ setup: { nozzle } }) =>
      nozzle.bore >= DUST_BORE
        ? undefined
        : {
            evidence: `The bore is ${nozzle.bore} mm.`,
            means: 'Below a quarter of a millimetre dust clogs it.',
            todo: 'Keep the spool covered, and wipe the filament on its way in.',
          },
  },
  {
    id: 'core-stays-cold',
    severity: 'caution',
    setting: 'nozzleTemperature',
    find: ({ setup: { nozzle, material, printer }, resolved: { settings } }) => {
      if (nozzle.bore <= COLD_BORE || material.family !== 'PLA' || settings.nozzleTemperature >= COLD_BORE_HEAT) return
      const reachable = Math.min(COLD_BORE_HEAT, printer.hotEnd.maxTemperature)
      return {
        evidence: `${settings.nozzleTemperature} °C for a ${nozzle.bore} mm bore.`,
        means: 'The core of so thick a strand stays cold.',
        todo: `PLA then wants ${COLD_BORE_HEAT} to 270 °C; ${printer.name} reaches ${printer.hotEnd.maxTemperature} °C.`,
        fix: { values: { nozzleTemperature: reachable } },
      }
    },
  },
  {
    id: 'hard-steel-runs-cold',
    severity: 'note',
    setting: 'nozzleTemperature',
    find: ({ setup: { nozzle, material }, resolved: { settings } }) => {
      const [low, high] = material.nozzleRange
      if (nozzle.body !== 'hardenedSteel' || settings.nozzleTemperature >= (low + high) / 2 + 5) return
      return {
        evidence: `${settings.nozzleTemperature} °C with hardened steel, which conducts poorly.`,
        means: 'Its tip works some 5 to 20 °C colder than brass at the same setting.',
        todo: 'Set it 10 °C hotter, or print slower.',
        fix: { values: { nozzleTemperature: settings.nozzleTemperature + 10 } },
      }
    },
  },
]
