import { definitionOf, type SettingName } from '../profile/settings'
import { isFilled } from '../shelf/material'
import { be, count, type Finding, type Rule } from './check'

/** A wave of more than this behind corners shows, mm; semi-empirical. */
const VISIBLE_WAVE = 0.1
/** A print of minutes is not worth an hour of tuning (CP-T10, common practice): shorter than this, s, with as many own values. */
const [SHORT_PRINT, MANY_VALUES] = [15 * 60, 20] as const

/** Speeds and accelerations. */
export const paceChecks: readonly Rule[] = [
  {
    id: 'layer-time-short',
    severity: 'caution',
    setting: 'floorSpeed',
    find: ({ time, setup: { material } }) =>
      time.layersTooFast === 0
        ? undefined
        : {
            evidence: `${count(time.layersTooFast, 'layer')} ${be(time.layersTooFast)} done before the least layer time even at the floor speed.`,
            means: 'They are laid on too soon.',
            // Filled filament clogs when it is slow: its floor stays (CP-M5, S2).
            todo: isFilled(material)
              ? `Print two at once; the floor speed keeps ${material.name} from clogging and stays.`
              : 'Print two at once or lower the floor speed.',
          },
  },
  {
    id: 'first-layer-fast',
    severity: 'note',
    setting: 'firstLayerSpeed',
    find: ({ resolved: { settings } }) => {
      const general = Math.max(settings.outerWallSpeed, settings.innerWallSpeed, settings.topBottomSpeed, settings.infillSpeed)
      // CP-T1, common practice: at about half the general speed.
      if (settings.firstLayerSpeed <= 0.7 * general || settings.firstLayerSpeed <= 30) return
      const half = Math.max(15, Math.round(general / 2))
      return {
        evidence: `The first layer is laid at ${settings.firstLayerSpeed} mm/s, the others at up to ${general}.`,
        means: 'Laid fast it holds less to the bed.',
        todo: 'About half the general speed is usual.',
        fix: { values: { firstLayerSpeed: half } },
      }
    },
  },
  {
    id: 'beyond-the-machine',
    severity: 'note',
    find: ({ setup: { printer }, resolved: { settings } }) => {
      const { speed, acceleration } = printer.limits
      const most: readonly (readonly [SettingName, number])[] = [
        ['travelSpeed', Math.hypot(speed.x, speed.y)],
        ['acceleration', Math.hypot(acceleration.x, acceleration.y)],
        ['travelAcceleration', Math.hypot(acceleration.x, acceleration.y)],
      ]
      return most.flatMap(([name, limit]): Finding[] => {
        const asked = Number(settings[name])
        if (asked <= limit * 1.001) return []
        const { label } = definitionOf(name)
        return [
          {
            of: name,
            setting: name,
            evidence: `${label}: asked ${asked}; even on the diagonal ${printer.name} allows no more than ${Math.round(limit)}.`,
            means: 'More does nothing.',
            todo: '',
            fix: { values: { [name]: Math.floor(limit) } },
          },
        ]
      })
    },
  },
  {
    id: 'waves-behind-corners',
    severity: 'note',
    setting: 'outerWallAcceleration',
    find: ({ ringing, resolved: { settings } }) => {
      if (ringing.amplitudeMm < VISIBLE_WAVE) return
      const now = settings.outerWallAcceleration || settings.acceleration
      return {
        evidence: `After corners the frame swings by up to ${(1000 * ringing.amplitudeMm).toFixed(0)} µm, in waves ${ringing.wavelengthMm.toFixed(1)} mm long${ringing.measured ? '' : ' (frequency assumed)'}.`,
        means: 'That shows on flat walls.',
        todo: 'Accelerate the outer wall less, or take its corners slower.',
        fix: { values: { outerWallAcceleration: Math.round(now / 2) } },
      }
    },
  },
  {
    id: 'table-shakes',
    severity: 'note',
    setting: 'acceleration',
    find: ({ setup: { printer }, resolved: { settings } }) =>
      printer.table !== 'shaky' || settings.acceleration < 2000
        ? undefined
        : {
            evidence: `${settings.acceleration} mm/s² on a table that shakes.`,
            means: 'Layers may shift and walls show waves.',
            todo: 'Steady the table, or accelerate less.',
            fix: { values: { acceleration: 1500 } },
          },
  },
  {
    id: 'over-tuned',
    severity: 'note',
    find: ({ time, resolved: { origins } }) => {
      const own = Object.values(origins).filter((origin) => origin === 'profile').length
      if (time.timeS > SHORT_PRINT || own < MANY_VALUES) return
      return {
        evidence: `${own} values of its own for a print of ${Math.round(time.timeS / 60)} min.`,
        means: 'A print of minutes is not worth an hour of tuning; one of twenty hours is.',
        todo: 'Print it, and look.',
      }
    },
  },
]
