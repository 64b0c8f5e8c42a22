import { type Cause, type Clue, measured, type Remedy, whether } from '../../spec/cause'
import { localOf, whereOf } from '../../spec/scene'
import { lift } from './remedies'

const halfAcceleration: Remedy = {
  words: 'Half of every acceleration',
  change: ({ settings }) => ({
    acceleration: Math.round(settings.acceleration / 2),
    outerWallAcceleration: Math.round((settings.outerWallAcceleration || settings.acceleration) / 2),
    travelAcceleration: Math.round(settings.travelAcceleration / 2),
  }),
  keeps: 'printer',
}

/** Waves that the pace does not explain come from what gives way. */
const unexplained = (steep: number): Clue =>
  measured('assumed: what the pace does not explain', ({ prediction: { ringing } }) => ({
    value: 0.05 / Math.max(0.005, ringing.amplitudeMm),
    at: 1,
    steep,
    what: `foretold waves are ${(1000 * ringing.amplitudeMm).toFixed(0)} µm: the smaller, the likelier something gives way`,
  }))

/** The frame, its belts, what it stands on, and a part that sways under the nozzle. */
export const frameCauses: readonly Cause[] = [
  {
    id: 'accelerationHigh',
    name: 'The outer wall is accelerated harder than the frame bears',
    why: 'The head swings on behind every corner.',
    clues: [
      measured('model of ringing, A = a/(2πf)² (mechanics of an oscillator)', ({ prediction: { ringing } }) => ({
        value: ringing.amplitudeMm,
        at: 0.04,
        steep: 1.5,
        what: `waves of ${(1000 * ringing.amplitudeMm).toFixed(0)} µm, ${ringing.wavelengthMm.toFixed(1)} mm long${ringing.measured ? '' : ' (frequency assumed)'}`,
      })),
    ],
    remedies: [
      {
        words: 'Half the acceleration of the outer wall',
        change: ({ settings }) => ({ outerWallAcceleration: Math.round((settings.outerWallAcceleration || settings.acceleration) / 2) }),
        keeps: 'printer',
      },
      { words: 'Measure the frame’s own frequency', trial: 'ringing', keeps: 'printer' },
    ],
  },
  {
    id: 'cornerFast',
    name: 'Corners are taken fast',
    why: 'The sharper the change, the more it swings.',
    clues: [
      measured('assumed', ({ settings }) => ({ value: settings.cornerSpeed, at: 9, what: `corner speed ${settings.cornerSpeed} mm/s` })),
    ],
    remedies: [
      {
        words: 'Half the corner speed',
        change: ({ settings }) => (settings.cornerSpeed > 2 ? { cornerSpeed: settings.cornerSpeed / 2 } : undefined),
        keeps: 'printer',
      },
    ],
  },
  {
    id: 'beltsLoose',
    name: 'A belt or a pulley is loose',
    why: 'It gives, and jumps or swings by itself.',
    clues: [unexplained(0.7)],
    remedies: [
      {
        words: 'Tighten belts and pulley screws',
        keeps: 'nothing',
        minutes: 15,
        caution: 'Switch it off first: fingers between belt and pulley.',
      },
    ],
  },
  {
    id: 'tableShakes',
    name: 'What it stands on shakes',
    why: 'A light table moves against the bed, worst for tall parts on a moving bed.',
    clues: [
      whether(
        'the printer’s record',
        ({ setup: { printer } }) =>
          printer.table === 'shaky' || printer.table === 'steady'
            ? { so: printer.table === 'shaky', what: `the table is ${printer.table}` }
            : undefined,
        4,
        0.4,
      ),
      measured('assumed', ({ prediction: { mesh }, setup: { printer } }) => ({
        value: (mesh.sizeMm[2] / 80) * (printer.kinematics === 'movingBed' ? 1.3 : 0.8),
        at: 1,
        steep: 1,
        what: `${mesh.sizeMm[2].toFixed(0)} mm tall on ${printer.kinematics === 'movingBed' ? 'a moving bed' : 'a bed at rest'}`,
      })),
      unexplained(0.5),
    ],
    remedies: [{ words: 'Put it on a firmer base, then print the same', keeps: 'printer', minutes: 20 }, halfAcceleration],
    school: 'A firmer base first, less acceleration second.',
  },
  {
    id: 'travelHard',
    name: 'Travel is accelerated harder than the motors hold',
    why: 'A motor that loses steps goes on beside its way.',
    clues: [
      measured('the printer’s record', ({ settings, setup: { printer } }) => ({
        value: Math.min(settings.travelAcceleration, printer.limits.acceleration.x) / 2500,
        at: 1,
        steep: 1,
        what: `travel accelerated by ${settings.travelAcceleration} mm/s² at up to ${settings.travelSpeed} mm/s`,
      })),
    ],
    remedies: [
      {
        words: 'Half the acceleration of travel',
        change: ({ settings }) => ({ travelAcceleration: Math.round(settings.travelAcceleration / 2) }),
        keeps: 'printer',
      },
    ],
  },
  {
    id: 'hitsEdges',
    name: 'The nozzle runs into curled edges',
    why: 'An edge that has curled up stands in the way of a head that does not lift.',
    clues: [
      whether(
        'CP-K6, CP-P1, common practice',
        ({ settings }) => ({
          so: settings.lift === 'never',
          what: settings.lift === 'never' ? 'no lift on travel' : `lift of ${settings.liftHeight} mm`,
        }),
        2.5,
        0.4,
      ),
      measured('measured on the paths', (scene) => {
        const here = localOf(scene, 'overAirMm')
        return {
          value: 5 + here.overAirMm,
          at: 20,
          steep: 0.7,
          what: `${here.overAirMm.toFixed(0)} mm of line over air, which curls, ${whereOf(scene, here)}`,
        }
      }),
    ],
    remedies: [lift('Lift by one layer over what is printed')],
    school: 'Lift only over printed parts, or always, or never: a lift is another chance for a string.',
  },
  {
    id: 'motorWeak',
    name: 'A motor has too little current, or is hot',
    why: 'It holds until something drags.',
    clues: [
      whether(
        'assumed',
        ({ setup: { printer } }) => ({
          so: printer.enclosed,
          what: printer.enclosed ? 'closed: motors are warm' : 'open: motors are cool',
        }),
        1.4,
        0.9,
      ),
    ],
    remedies: [
      {
        words: 'Feel the motors, and give them air',
        keeps: 'printer',
        minutes: 10,
        caution: 'Motors may be too hot to touch, and drivers carry mains-fed current: pull the plug before you open the case.',
      },
    ],
  },
  {
    id: 'sways',
    name: 'The part sways under the nozzle',
    why: 'Tall and thin it gives way, and lines land beside their place. Own frequency 0.56·√(EI/ρAL⁴), a standing beam.',
    clues: [
      measured('model of sway (beam theory)', (scene) => {
        const here = localOf(scene, 'swayMm')
        return {
          value: here.swayMm,
          at: scene.settings.lineWidth / 4,
          steep: 1,
          what: `gives way by ${here.swayMm.toFixed(2)} mm ${whereOf(scene, here)}; a quarter of a line is ${(scene.settings.lineWidth / 4).toFixed(2)}`,
        }
      }),
    ],
    remedies: [
      { words: 'Print it alone', change: ({ settings }) => (settings.copies > 1 ? { copies: 1 } : undefined), keeps: 'profile' },
      {
        words: 'Half of every speed',
        change: ({ settings }) => ({
          outerWallSpeed: Math.round(settings.outerWallSpeed / 2),
          innerWallSpeed: Math.round(settings.innerWallSpeed / 2),
          infillSpeed: Math.round(settings.infillSpeed / 2),
          topBottomSpeed: Math.round(settings.topBottomSpeed / 2),
        }),
        keeps: 'profile',
      },
    ],
    school: 'One alone and slow; or two together, so that each has time.',
  },
  {
    id: 'stepsWrong',
    name: 'The machine’s own steps are off',
    why: 'Every length is too long or too short by the same share.',
    clues: [
      measured('model of fit (semi-empirical)', ({ prediction: { fit } }) => ({
        value: 0.12 / Math.max(0.02, Math.abs(fit.worstMm)),
        at: 1,
        steep: 0.7,
        what: `${fit.worstMm.toFixed(2)} mm off is foretold by itself: what is beyond is the machine’s`,
      })),
    ],
    remedies: [{ words: 'Measure three lengths, and set the steps', trial: 'dimensions', keeps: 'printer' }],
  },
]
