import { isFilled } from '../../../shelf/material'
import { waterTaken } from '../../../shelf/spool'
import { type Cause, type Clue, measured, whether } from '../../spec/cause'
import { localOf, whereOf } from '../../spec/scene'
import { coldPull, cooler, findHeat } from './remedies'

const filled = (ifSo: number, ifNot: number): Clue =>
  whether(
    'CP-M5, common practice',
    ({ setup: { material } }) => ({ so: isFilled(material), what: `${material.name} is ${isFilled(material) ? '' : 'not '}filled` }),
    ifSo,
    ifNot,
  )

/** Filament that is damp, dusty or not what its label says. */
export const filamentCauses: readonly Cause[] = [
  {
    id: 'wet',
    name: 'The filament is damp',
    why: 'Water boils in the nozzle: it drips on travel, foams, and leaves weak, rough lines.',
    clues: [
      measured('model of drying (semi-empirical), CP-R1', ({ setup: { stock, material } }) => {
        if (!stock || stock.days === undefined) return undefined
        const taken = waterTaken(stock, material)
        return {
          value: taken,
          at: 0.35,
          what: `${stock.days} days since it was dried: ${Math.round(100 * taken)} % of the water that it can take up`,
        }
      }),
      whether(
        'assumed',
        ({ setup: { material } }) =>
          material.moisture && {
            so: material.moisture === 'fast',
            what: `${material.name} takes up water ${material.moisture === 'fast' ? 'fast' : 'slowly'}`,
          },
        1.8,
        0.8,
      ),
    ],
    remedies: [
      {
        words: 'Dry the reel, then print the same again',
        keeps: 'nothing',
        minutes: 10,
        waits: 360,
        caution: 'Stay below the heat at which the filament softens, and do not leave an oven alone with it: household ovens overshoot.',
      },
      { words: 'Weigh and hear it: a dry line is smooth and silent', trial: 'dryness', keeps: 'spool' },
    ],
    school: 'Some dry every reel before every print; others only where it hisses.',
  },
  {
    id: 'otherSpool',
    name: 'This very reel flows or bonds worse than its like',
    why: 'Pigments and old stock change how a material melts; two reels of one label differ by ten degrees.',
    clues: [
      whether(
        'assumed',
        ({ setup: { spool, known } }) =>
          spool && {
            so: known === undefined,
            what: known === undefined ? 'nothing was measured with this reel' : 'its numbers were measured with this reel',
          },
        1.5,
        0.5,
      ),
    ],
    remedies: [{ words: 'Print it from another reel of the material', keeps: 'nothing', minutes: 5 }, findHeat],
  },
  {
    id: 'fibreInBore',
    name: 'Fibre or dust lies across the bore',
    why: 'Wood, fibre and lint bridge a small bore and let less and less through.',
    clues: [
      filled(4, 0.3),
      measured('CP-M5, common practice: 0.6 mm or more', ({ setup: { material, nozzle } }) =>
        isFilled(material)
          ? { value: 0.6 / nozzle.bore, at: 1.1, steep: 3, what: `bore ${nozzle.bore} mm; filled filament wants 0.6 or more` }
          : undefined,
      ),
    ],
    remedies: [
      coldPull('Pull it cold, and go on with a nozzle of 0.6 mm or more', 'printer'),
      { words: 'Give the filament a straight way from reel to drive, and wipe the dust off it', keeps: 'printer', minutes: 10 },
    ],
  },
  {
    id: 'lingersFilled',
    name: 'Filled filament is laid too slowly and cooks in the nozzle',
    why: 'What stands in the heat chars and swells round its fibres.',
    clues: [
      filled(3, 0.2),
      measured('CP-M5, common practice: 40 mm/s at least', ({ setup: { material }, settings }) =>
        isFilled(material)
          ? {
              value: 40 / Math.max(1, settings.floorSpeed),
              at: 1.2,
              what: `floor speed ${settings.floorSpeed} mm/s; filled filament wants 40 or more`,
            }
          : undefined,
      ),
      whether(
        'CP-M5, common practice',
        ({ setup: { material }, settings }) =>
          isFilled(material) ? { so: settings.minLayerTime > 0, what: `least layer time ${settings.minLayerTime} s` } : undefined,
        2,
        0.5,
      ),
    ],
    remedies: [
      {
        words: 'Let no layer wait: no least layer time, floor at 40 mm/s',
        change: ({ settings }) =>
          settings.minLayerTime > 0 || settings.floorSpeed < 40
            ? { minLayerTime: 0, floorSpeed: Math.max(40, settings.floorSpeed) }
            : undefined,
        keeps: 'profile',
      },
    ],
  },
  {
    id: 'heatCreep',
    name: 'Heat creeps up: filament softens before the hot end',
    why: 'Where hardly anything flows for long, warmth climbs to where the filament should still be stiff, and it buckles.',
    clues: [
      measured('assumed: a layer of little plastic and much time', (scene) => {
        const here = localOf(scene, 'melt')
        return {
          value: 0.04 / Math.max(here.melt, 1e-3),
          at: 1,
          what: `melt load ${Math.round(100 * here.melt)} % ${whereOf(scene, here)}: the less flows, the warmer it gets above`,
        }
      }),
      whether(
        'assumed',
        ({ setup: { printer } }) => ({
          so: printer.enclosed,
          what: printer.enclosed ? 'the printer is closed: the air about its motor is warm' : 'the printer is open',
        }),
        1.6,
        0.8,
      ),
    ],
    remedies: [
      cooler(10),
      {
        words: 'Clean the fan of the cold side and open the door',
        keeps: 'nothing',
        minutes: 10,
        caution: 'Pull the mains plug before you reach in.',
      },
    ],
  },
  {
    id: 'tangled',
    name: 'The reel binds, or the filament slips on its drive',
    why: 'What pulls back at the filament is missing at the nozzle, now and then.',
    clues: [
      measured('assumed', ({ setup: { stock } }) =>
        stock?.remaining.grams === undefined
          ? undefined
          : {
              value: 150 / Math.max(20, stock.remaining.grams),
              at: 1,
              steep: 1,
              what: `about ${Math.round(stock.remaining.grams)} g are left: the last turns are tight`,
            },
      ),
    ],
    remedies: [
      {
        words: 'Turn the reel by hand, wipe the drive wheel',
        keeps: 'nothing',
        minutes: 5,
        caution: 'Keep fingers and sleeves away from the turning drive.',
      },
    ],
  },
  {
    id: 'shrinks',
    name: 'The plastic shrinks as it cools',
    why: 'Every material comes out smaller by its own share of each length.',
    clues: [
      measured('model of fit (semi-empirical)', ({ prediction: { fit } }) => ({
        value: fit.shrinkMm,
        at: 0.15,
        what: `foretold ${fit.shrinkMm.toFixed(2)} mm over the longest side`,
      })),
    ],
    remedies: [{ words: 'Measure it, and scale by what it shrinks', trial: 'dimensions', keeps: 'spool' }],
  },
]
