import type { SettingValues } from '../profile/settings'
import { knownSetup } from '../setup/knownSetup'
import { type Evidence, type Rule, round } from './check'
import { widerBrim } from './widerBrim'

/** A little more than is needed, so that one press settles it. */
const SURELY = 1.15
/** Slower than this nothing is drawn, mm/s; semi-empirical. */
const SLOWEST = 5
/** Longer than this no layer is made to take, s; semi-empirical. */
const LONGEST = 300

const wider = (trunk: number): number => (trunk < 15 ? 15 : Math.max(trunk, Math.min(35, trunk + 10)))

/** Lift and so much layer time that the part sways no more than a quarter of a line; nothing where no speed brings that. */
function calmed({ sway: { mostMm, worst }, setup, resolved: { settings } }: Evidence): SettingValues | undefined {
  const { constants, material } = knownSetup(setup)
  const over = (SURELY * mostMm) / (settings.lineWidth / 4)
  const knocks = settings.lift === 'never' && settings.spiralWall === 'off'
  const lifted = knocks ? over / (1 + constants.sway.knock) : over
  const slower = Math.max(1, lifted) ** (1 / constants.sway.pace)
  const speed = worst.speedMmS / slower
  const time = Math.ceil(worst.timeS * slower)
  // A filled filament that clogs when it is slow keeps its floor.
  if (speed < Math.max(SLOWEST, Number(material.defaults.floorSpeed ?? 0)) || time > LONGEST) return
  return {
    ...(knocks ? { lift: 'overPrinted' } : {}),
    ...(slower > 1
      ? { minLayerTime: Math.max(settings.minLayerTime, time), floorSpeed: Math.min(settings.floorSpeed, Math.floor(speed / 2)) }
      : {}),
  }
}

/** What gives way, or comes loose, under the nozzle. */
export const swayChecks: readonly Rule[] = [
  {
    id: 'part-sways',
    severity: 'caution',
    setting: 'minLayerTime',
    find: (evidence) => {
      const { sway } = evidence
      const { slowAboveZMm, falls, mostMm, worst } = sway
      if (slowAboveZMm === undefined) return
      const fix = calmed(evidence)
      const pushed = `drawn at ${round(worst.speedMmS)} mm/s, pushed by ${worst.forceN.toFixed(1)} N`
      const todo = fix
        ? 'Lift on travel and give each layer more time, or slow it there by an override.'
        : 'No speed settles that: lay it down, make it thicker, or cut it in two.'
      return falls?.by === 'sway'
        ? {
            atZMm: falls.aboveZMm,
            evidence: `From z ${falls.aboveZMm.toFixed(0)} mm on the part gives way under the nozzle by more than a line’s width (${pushed}).`,
            means: 'It will not stand: the next line has nothing under it.',
            todo,
            fix: fix && { values: fix },
          }
        : {
            atZMm: slowAboveZMm,
            evidence: `From z ${slowAboveZMm.toFixed(0)} mm on the part gives way under the nozzle by more than a quarter of a line, up to ${mostMm.toFixed(2)} mm (${pushed}).`,
            means: 'Its edge feathers there.',
            todo,
            fix: fix && { values: fix },
          }
    },
  },
  {
    id: 'part-comes-loose',
    severity: 'caution',
    setting: 'brim',
    find: ({ sway: { falls }, resolved: { settings } }) => {
      if (falls?.by !== 'foot') return
      return {
        atZMm: falls.aboveZMm,
        evidence: `From z ${falls.aboveZMm.toFixed(0)} mm on the nozzle’s push pulls at the edge of the foot more than the bed is taken to hold.`,
        means: 'It comes off the bed before it is done.',
        todo: 'Widen its foot by a brim, lift on travel, slow it up there, or lay it down.',
        fix: {
          values: {
            ...widerBrim(settings),
            lift: settings.lift === 'never' ? 'overPrinted' : settings.lift,
          },
        },
      }
    },
  },
  {
    id: 'support-sways',
    severity: 'caution',
    find: ({ supportSway: { mostMm, atZMm, looseAboveZMm }, resolved: { settings } }) => {
      const sways = mostMm > settings.lineWidth
      if (!sways && looseAboveZMm === undefined) return
      const branching = settings.supports === 'branching'
      return {
        setting: branching ? 'trunkDiameter' : 'supportDensity',
        atZMm: sways ? atZMm : looseAboveZMm!,
        evidence: sways
          ? `A lone support gives way under the nozzle by ${mostMm.toFixed(1)} mm at z ${atZMm.toFixed(0)} mm.`
          : `From z ${looseAboveZMm!.toFixed(0)} mm on the nozzle’s push pulls at the foot of a lone support more than the bed is taken to hold.`,
        means: 'It may break, and the part with it: more plastic in a support is cheaper than a failed print.',
        todo: 'Widen the trunk (15 to 35 mm at its base), slow supports to about 25 mm/s, lift on travel, give it an inner and an outer brim, and steady the table.',
        fix: {
          values: {
            // From 15 to 35 mm at the base (CP-P1, common practice), a step at a time.
            ...(branching ? { trunkDiameter: wider(settings.trunkDiameter) } : { supportDensity: Math.max(10, settings.supportDensity) }),
            supportSpeed: Math.min(25, settings.supportSpeed),
            lift: settings.lift === 'never' ? 'overPrinted' : settings.lift,
            supportBrim: 'both',
          },
        },
      }
    },
  },
]
