import { type Cause, measured, whether } from '../../spec/cause'
import { localOf, type Scene, whereOf } from '../../spec/scene'
import { cooler, findHeat, hotter, mendFan } from './remedies'

/** Where in its label's range the nozzle is: 0 at its foot, 1 at its top. */
const shareOf = (scene: Scene): number => {
  const [low, high] = scene.setup.material.nozzleRange
  return (scene.settings.nozzleTemperature - low) / Math.max(1, high - low)
}
const inRange = (scene: Scene): string =>
  `${scene.settings.nozzleTemperature} °C; the label says ${scene.setup.material.nozzleRange.join(' to ')}`

/** Nozzle, bed, air and fan: what is too warm or too cold. */
export const heatCauses: readonly Cause[] = [
  {
    id: 'hot',
    name: 'The nozzle is hotter than it need be',
    why: 'Thin plastic oozes on travel, droops over air and shines.',
    clues: [
      measured('the label; assumed', (scene) => ({ value: Math.max(0.02, shareOf(scene)), at: 0.6, steep: 1, what: inRange(scene) })),
    ],
    remedies: [cooler(5), cooler(10), findHeat],
  },
  {
    id: 'cold',
    name: 'The nozzle is too cold for the pace',
    why: 'What is not hot enough to flow arrives late, and does not melt into what lies below.',
    clues: [
      measured('the label; assumed', (scene) => ({ value: Math.max(0.02, 1 - shareOf(scene)), at: 0.6, what: inRange(scene) })),
      measured('model of melting (semi-empirical)', (scene) => {
        const here = localOf(scene, 'melt')
        return { value: here.melt, at: 0.7, what: `melt load ${Math.round(100 * here.melt)} % ${whereOf(scene, here)}` }
      }),
    ],
    remedies: [hotter(5), hotter(10)],
  },
  {
    id: 'layerTimeShort',
    name: 'Layers are laid on before the ones below have set',
    why: 'A soft tip follows the nozzle about and gathers hairs.',
    clues: [
      measured('model of cooling (semi-empirical), CP-C1', (scene) => {
        const here = localOf(scene, 'cooling')
        return {
          value: 1 / Math.max(0.05, here.cooling),
          at: 1,
          what: Number.isFinite(here.cooling)
            ? `the layer takes ${here.timeS.toFixed(0)} s, ${here.cooling.toFixed(1)} times what it needs to set, ${whereOf(scene, here)}`
            : `the layer needs no time to set ${whereOf(scene, here)}`,
        }
      }),
    ],
    remedies: [
      {
        words: 'Give every layer 15 s',
        change: ({ settings }) => (settings.minLayerTime < 15 ? { minLayerTime: 15 } : undefined),
        keeps: 'profile',
      },
      {
        words: 'Print two together',
        change: ({ settings }) => (settings.copies < 2 ? { copies: 2, copyOrder: 'together' } : undefined),
        keeps: 'profile',
      },
    ],
    school: 'Slowing down leaves the hot nozzle at the tip; a second copy, or a tower beside it, takes it away.',
  },
  {
    id: 'fanWeak',
    name: 'The fan blows too little',
    why: 'What stays soft strings, droops and curls up.',
    clues: [
      measured('assumed', ({ settings, setup: { material } }) => ({
        value: (110 - settings.fanSpeed) / 100,
        at: material.family === 'PLA' || material.family === 'woodPLA' ? 0.35 : 0.75,
        steep: 1,
        what: `fan ${settings.fanSpeed} %`,
      })),
    ],
    remedies: [
      { words: 'Fan full', change: ({ settings }) => (settings.fanSpeed < 100 ? { fanSpeed: 100 } : undefined), keeps: 'spool' },
      mendFan,
    ],
  },
  {
    id: 'fanBetween',
    name: 'The fan is neither full nor nearly off',
    why: 'Half-cooled threads are still soft when they land.',
    clues: [
      whether(
        'CP-R9, common practice, both schools',
        ({ settings }) => ({ so: settings.fanSpeed > 15 && settings.fanSpeed < 95, what: `fan ${settings.fanSpeed} %` }),
        2.5,
        0.4,
      ),
    ],
    remedies: [
      { words: 'Fan full', change: ({ settings }) => (settings.fanSpeed < 95 ? { fanSpeed: 100 } : undefined), keeps: 'spool' },
      { words: 'Fan nearly off', change: ({ settings }) => (settings.fanSpeed > 10 ? { fanSpeed: 10 } : undefined), keeps: 'spool' },
    ],
    school: 'One school freezes strings with a full fan; the other lets them melt back with hardly any.',
  },
  {
    id: 'fanStrong',
    name: 'The fan cools too much',
    why: 'Cold layers do not melt into each other, and the part pulls itself off the bed.',
    clues: [
      whether('CP-M3, CP-M6, common practice', ({ settings, setup: { material } }) => {
        const most = { ABS: 30, PETG: 60, nylon: 30 }[material.family as string]
        return most === undefined
          ? undefined
          : { so: settings.fanSpeed > most, what: `fan ${settings.fanSpeed} %; ${material.family} bears about ${most}` }
      }),
      measured('model of the bond (semi-empirical)', (scene) => {
        const here = localOf(scene, 'bond')
        return { value: 1 - here.bond, at: 0.35, what: `layers hold ${Math.round(100 * here.bond)} % of the bulk ${whereOf(scene, here)}` }
      }),
    ],
    remedies: [
      {
        words: 'Half the fan',
        change: ({ settings }) => (settings.fanSpeed > 10 ? { fanSpeed: Math.round(settings.fanSpeed / 2) } : undefined),
        keeps: 'spool',
      },
    ],
  },
  {
    id: 'bedWarmthGone',
    name: 'The warmth of the bed no longer reaches this height',
    why: 'Near the bed layers stay warm and bond; above, a cool nozzle does not make up for it.',
    clues: [
      measured('model of the bond (semi-empirical)', (scene) => {
        const reach = scene.setup.constants?.bond.bedReach ?? 25
        return scene.atZ === undefined
          ? undefined
          : {
              value: scene.atZ / reach,
              at: 1.2,
              what: `${scene.atZ.toFixed(0)} mm above the bed, whose warmth is felt for about ${reach.toFixed(0)} mm`,
            }
      }),
      measured('the label; assumed', (scene) => ({ value: Math.max(0.02, 1 - shareOf(scene)), at: 0.55, what: inRange(scene) })),
    ],
    remedies: [hotter(5), hotter(10, 'Print 10 °C hotter, several times: it comes and goes')],
    school: 'Five degrees held once, ten held five times: what comes and goes is only known after several prints.',
  },
  {
    id: 'heatSwings',
    name: 'The heat swings, or changes from layer to layer',
    why: 'Another heat is another gloss.',
    clues: [
      whether(
        'assumed',
        ({ settings }) => ({
          so: settings.firstLayerNozzle !== 0 && settings.firstLayerNozzle !== settings.nozzleTemperature,
          what:
            settings.firstLayerNozzle === 0
              ? 'one heat throughout'
              : `first layer at ${settings.firstLayerNozzle} °C, the others at ${settings.nozzleTemperature}`,
        }),
        2,
        0.5,
      ),
    ],
    remedies: [
      {
        words: 'Tune the heater’s control, put the sock back on',
        keeps: 'printer',
        minutes: 10,
        caution: 'The block is hot enough to burn for a quarter of an hour after it is switched off.',
      },
    ],
  },
  {
    id: 'bedCold',
    name: 'The bed is too cold',
    why: 'Cold plastic lets go of it, and shrinks at once.',
    clues: [
      measured('the label; assumed', ({ settings, setup: { material } }) => ({
        value: (material.bedRange[0] + material.bedRange[1]) / 2 + 10 - settings.bedTemperature,
        at: 12,
        what: `bed ${settings.bedTemperature} °C; the label says ${material.bedRange.join(' to ')}`,
      })),
    ],
    remedies: [{ words: 'Bed 10 °C warmer', change: ({ settings }) => ({ bedTemperature: settings.bedTemperature + 10 }), keeps: 'spool' }],
  },
  {
    id: 'bedHot',
    name: 'The bed is so hot that the foot stays soft',
    why: 'What lies on top presses the soft foot out.',
    clues: [
      measured('the label; assumed', ({ settings, setup: { material } }) => ({
        value: Math.max(1, settings.bedTemperature - (material.bedRange[0] + material.bedRange[1]) / 2 + 10),
        at: 12,
        what: `bed ${settings.bedTemperature} °C; the label says ${material.bedRange.join(' to ')}`,
      })),
    ],
    remedies: [
      {
        words: 'Bed 10 °C cooler',
        change: ({ settings }) => (settings.bedTemperature >= 10 ? { bedTemperature: settings.bedTemperature - 10 } : undefined),
        keeps: 'spool',
      },
    ],
  },
  {
    id: 'openAir',
    name: 'Draught, or no closed housing',
    why: 'Cold air shrinks the upper layers over the lower ones.',
    clues: [
      whether(
        'CP-M6, common practice',
        ({ setup: { printer, material } }) => {
          const wants = material.family === 'ABS' || material.family === 'nylon'
          return { so: !printer.enclosed && wants, what: `${printer.enclosed ? 'closed' : 'open'} printer, ${material.family}` }
        },
        4,
        0.5,
      ),
    ],
    remedies: [
      {
        words: 'Close it in, or stand a screen about it',
        keeps: 'printer',
        minutes: 15,
        caution: 'A cover must not touch the hot end; ABS gives off fumes, so let air out of the room.',
      },
    ],
  },
]
