import { type Rule, round } from './check'

const walls = 'Walls first, or more infill: the strength row tells newtons for what each costs here.'
/** A bond under this share of the bulk snaps clean off; semi-empirical (CP-K4). */
const WEAK_BOND = 0.35

/** What carries. */
export const strengthChecks: readonly Rule[] = [
  {
    id: 'infill-beyond-use',
    severity: 'note',
    setting: 'infillDensity',
    of: { school: 'S4', fix: 'walls', other: 'infill' },
    school: walls,
    find: ({ resolved: { settings } }) =>
      // CP-K1, common practice. Solid parts are meant to be.
      settings.infillDensity <= 30 || settings.infillDensity >= 90
        ? undefined
        : {
            evidence: `${settings.infillDensity} % infill.`,
            means: 'More than 30 % seldom pays: walls carry more than infill.',
            todo: 'Add a wall instead, or be content with 30 %.',
            fix: { values: { infillDensity: 25, wallCount: settings.wallCount + 1 } },
            otherFix: { values: { infillDensity: 30 } },
          },
  },
  {
    id: 'wall-before-infill',
    severity: 'note',
    setting: 'wallCount',
    of: { school: 'S4', fix: 'walls', other: 'infill' },
    school: walls,
    find: ({ resolved: { settings } }) =>
      settings.wallCount > 2 || settings.infillDensity < 25 || settings.infillDensity > 30
        ? undefined
        : {
            evidence: `${settings.wallCount} walls with ${settings.infillDensity} % infill.`,
            means: 'Three or four walls carry more than dense infill.',
            todo: 'Take a wall more and less infill; the other school goes up to 40 %.',
            fix: { values: { wallCount: settings.wallCount + 1, infillDensity: 15 } },
            otherFix: { values: { infillDensity: 40 } },
          },
  },
  {
    id: 'layers-come-apart',
    severity: 'caution',
    setting: 'nozzleTemperature',
    find: ({ bond, resolved: { settings }, setup }) => {
      if (bond.worst >= WEAK_BOND) return
      const hotter = Math.min(settings.nozzleTemperature + 10, setup.material.nozzleRange[1])
      return {
        atZMm: bond.worstAtZMm,
        evidence: `The layer at z ${bond.worstAtZMm.toFixed(1)} mm holds to the one below with ${Math.round(100 * bond.worst)} % of the bulk.`,
        means: 'Such layers snap clean off.',
        todo: 'Hotter, less fan, slower or shorter layers.',
        fix: hotter > settings.nozzleTemperature ? { values: { nozzleTemperature: hotter } } : undefined,
      }
    },
  },
  {
    id: 'top-stays-open',
    severity: 'note',
    setting: 'topLayers',
    find: ({ topClosure, resolved: { settings } }) =>
      settings.topLayers === 0 || topClosure.gapMm === undefined || topClosure.closure >= 1 || settings.infillPattern === 'topPropping'
        ? undefined
        : {
            evidence: `Tops are ${topClosure.thicknessMm.toFixed(2)} mm thick and must bridge ${topClosure.gapMm.toFixed(1)} mm.`,
            means: 'They may sag or stay open.',
            todo: 'More top layers, or denser infill, close them.',
            fix: { values: { topLayers: Math.ceil(settings.topLayers / topClosure.closure) } },
          },
  },
  {
    id: 'soft-part-stiff-top',
    severity: 'note',
    setting: 'topLayers',
    find: ({ setup: { material }, resolved: { settings } }) =>
      material.family !== 'flexible' || settings.topLayers <= 4
        ? undefined
        : {
            evidence: `${settings.topLayers} top layers on ${material.name}.`,
            means: 'More top layers make a soft part stiff; 2 % infill placed under the top is enough to carry it.',
            todo: '',
            fix: { values: { topLayers: 3 } },
          },
  },
  {
    id: 'infill-thicker-than-bore',
    severity: 'note',
    setting: 'infillEvery',
    find: ({ setup: { nozzle }, resolved: { settings } }) => {
      const most = Math.max(1, Math.floor((nozzle.bore * 0.875) / settings.layerHeight + 1e-9))
      if (settings.infillEvery <= most) return
      return {
        evidence: `The infill of ${settings.infillEvery} layers at once would be ${round(settings.infillEvery * settings.layerHeight, 2)} mm thick from a ${nozzle.bore} mm bore.`,
        means: `No more than ${most} are laid at once.`,
        todo: '',
        fix: { values: { infillEvery: most } },
      }
    },
  },
]
