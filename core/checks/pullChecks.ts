import type { Settings } from '../profile/settings'
import type { Setup } from '../setup/resolve'
import { type Finding, type Fix, type Rule, round } from './check'

/** Pushing filament forward faster than this makes motors skip, mm/s; common practice (CP-R4). */
const SAFE_PUSH_BACK = 30
/** From so many on strings are worth a word; semi-empirical. */
const MANY_STRINGS = 30
/** Retraction that a tube needs at least, and that a direct extruder needs at most, mm; common practice (CP-M1). */
const [LEAST_IN_TUBE, MOST_DIRECT] = [2, 2.5] as const

/** The next lever that practitioners turn, dryness and heat left out: a usual retraction, then a wipe (CP-R2, CP-M1, common practice). */
function stringFix({ retractLength, wipeLength }: Settings, { printer, material }: Setup): Fix | undefined {
  const usual = printer.extruder === 'tube' ? 4 : 0.6
  if (material.family !== 'flexible' && retractLength < usual) return { values: { retractLength: usual } }
  return wipeLength < 2 ? { values: { wipeLength: wipeLength < 1 ? 1 : 2 } } : undefined
}

/** Pulling back and wiping, or the fan that the other school blames. */
function bothSchools(settings: Settings, setup: Setup): Partial<Pick<Finding, 'fix' | 'otherFix'>> {
  const fix = stringFix(settings, setup)
  return setup.material.family === 'PLA' && fix ? { fix, otherFix: { values: { fanSpeed: settings.fanSpeed > 10 ? 10 : 100 } } } : { fix }
}

/** What filament does on the way. */
export const pullChecks: readonly Rule[] = [
  {
    id: 'push-back-fast',
    severity: 'note',
    setting: 'pushBackSpeed',
    find: ({ resolved: { settings } }) =>
      settings.pushBackSpeed <= SAFE_PUSH_BACK
        ? undefined
        : {
            evidence: `Filament is pushed back at ${settings.pushBackSpeed} mm/s.`,
            means: `Motors tend to skip beyond about ${SAFE_PUSH_BACK} mm/s.`,
            todo: '',
            fix: { values: { pushBackSpeed: SAFE_PUSH_BACK } },
          },
  },
  {
    id: 'retraction-beyond-firmware',
    severity: 'note',
    setting: 'retractSpeed',
    find: ({ setup: { printer }, resolved: { settings } }) => {
      const most = printer.limits.extruderSpeed
      if (settings.retractSpeed <= most) return
      return {
        evidence: `Retraction is asked at ${settings.retractSpeed} mm/s; the firmware feeds at ${most} mm/s at most.`,
        means: 'More does nothing.',
        todo: '',
        fix: { values: { retractSpeed: most } },
      }
    },
  },
  {
    id: 'retraction-slow',
    severity: 'note',
    setting: 'retractSpeed',
    find: ({ resolved: { settings } }) =>
      settings.retractLength === 0 || settings.retractSpeed >= 20
        ? undefined
        : {
            evidence: `Filament is pulled back at ${settings.retractSpeed} mm/s.`,
            means: 'It oozes meanwhile; 30 to 60 mm/s are usual.',
            todo: '',
            fix: { values: { retractSpeed: 35 } },
          },
  },
  {
    id: 'retraction-short-for-tube',
    severity: 'note',
    setting: 'retractLength',
    find: ({ setup: { printer, material }, resolved: { settings } }) => {
      const { retractLength } = settings
      if (printer.extruder !== 'tube' || material.family === 'flexible' || retractLength === 0 || retractLength >= LEAST_IN_TUBE) return
      return {
        evidence: `${retractLength} mm of retraction through a tube${printer.tubeLength ? ` of ${printer.tubeLength} mm` : ''}.`,
        means: 'The slack of the tube takes it up; 3 to 6 mm are usual.',
        todo: '',
        fix: { values: { retractLength: 4 } },
      }
    },
  },
  {
    id: 'retraction-long-for-direct',
    severity: 'note',
    setting: 'retractLength',
    find: ({ setup: { printer }, resolved: { settings } }) =>
      printer.extruder !== 'direct' || settings.retractLength <= MOST_DIRECT
        ? undefined
        : {
            evidence: `${settings.retractLength} mm of retraction with the extruder at the head.`,
            means: 'Longer is not always better: molten plastic is pulled into the cold part and clogs there.',
            todo: '0.4 to 0.8 mm are usual.',
            fix: { values: { retractLength: 0.8 } },
          },
  },
  {
    id: 'flexible-retraction',
    severity: 'caution',
    setting: 'retractLength',
    find: ({ setup: { material }, resolved: { settings } }) =>
      material.family !== 'flexible' || settings.retractLength <= 0.8
        ? undefined
        : {
            evidence: `${settings.retractLength} mm of retraction with ${material.name}.`,
            means: 'Soft filament stretches and winds around the gears.',
            todo: 'Switch it off, or leave it tiny.',
            fix: { values: { retractLength: 0.2 } },
          },
  },
  {
    id: 'flexible-through-tube',
    severity: 'caution',
    find: ({ setup: { material, printer } }) =>
      material.family !== 'flexible' || printer.extruder !== 'tube'
        ? undefined
        : {
            evidence: `${material.name} through the tube of ${printer.name}.`,
            means: 'Soft filament buckles on the way.',
            todo: 'Print it with the extruder at the head, or very slowly.',
          },
  },
  {
    id: 'petg-through-tube',
    severity: 'note',
    find: ({ setup: { material, printer }, strings }) =>
      material.family !== 'PETG' || printer.extruder !== 'tube' || strings.expected < MANY_STRINGS
        ? undefined
        : {
            evidence: `${material.name} through the tube of ${printer.name}, with ${(strings.openM + strings.pulledM).toFixed(1)} m of travel over open air.`,
            means: 'It drips on travel; a tube struggles to hold it back.',
            todo: 'Slow lines and fast travel help; so does more retraction.',
          },
  },
  {
    id: 'wipe-under-pull',
    severity: 'note',
    setting: 'wipeLength',
    find: ({ resolved: { settings } }) =>
      settings.wipeLength <= 5
        ? undefined
        : {
            evidence: `Every retraction wipes ${settings.wipeLength} mm back over the line.`,
            means: 'One or two millimetres do; more takes time and may scar the wall.',
            todo: '',
            fix: { values: { wipeLength: 2 } },
          },
  },
  {
    id: 'coasting-long',
    severity: 'note',
    setting: 'coastLength',
    find: ({ resolved: { settings } }) =>
      settings.coastLength <= 1
        ? undefined
        : {
            evidence: `Filament is stopped ${settings.coastLength} mm before each line ends.`,
            means: 'That leaves gaps at seams.',
            todo: '',
            fix: { values: { coastLength: 0.3 } },
          },
  },
  {
    id: 'pulls-too-often',
    severity: 'note',
    setting: 'retractMinTravel',
    find: ({ resolved: { settings } }) =>
      settings.retractLength === 0 || settings.retractMinTravel >= 0.5
        ? undefined
        : {
            evidence: `Filament is pulled back on travels of ${settings.retractMinTravel} mm already.`,
            means: 'The gears grind the same piece of it again and again.',
            todo: '',
            fix: { values: { retractMinTravel: 1.5 } },
          },
  },
  {
    id: 'strings',
    severity: 'note',
    setting: 'retractLength',
    school: 'Full fan freezes strings, say some, and stop most of it; others never print without.',
    find: ({ strings, setup, resolved: { settings } }) => {
      if (strings.expected < MANY_STRINGS) return
      const dry =
        strings.wet === undefined
          ? ' It is not known how dry the filament is.'
          : strings.wet > 0.3
            ? ' The filament has taken up water since it was dried.'
            : ''
      return {
        evidence: `The nozzle travels ${strings.openM.toFixed(1)} m over open air with filament at its mouth and ${strings.pulledM.toFixed(1)} m with it pulled back.${dry}`,
        means: `About ${round(strings.expected)} strings are to be expected.`,
        todo: 'Dry the filament first; then a cooler nozzle, a longer retraction, a wipe of 1 to 2 mm, one change at a time.',
        ...bothSchools(settings, setup),
      }
    },
  },
]
