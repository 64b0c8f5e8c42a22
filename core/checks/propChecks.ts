import { count, type Rule } from './check'

/** Overhang of less than this, mm² over all layers, is not worth a word. */
const LEAST_UNHELD = 2
/** Line over air without any support that is worth a word, mm; semi-empirical. */
const MUCH_OVER_AIR = 1500
/** Bridges longer than this sag with most machines, mm; semi-empirical. */
const LONG_BRIDGE = 40
/** A bridge is laid faster than this by mistake, mm/s; semi-empirical. */
const FAR_TOO_FAST = 150

/** What joins the rest after so little is spoiled there but does not come loose, mm; semi-empirical. */
const SOON_JOINED = 1

/** What holds overhangs up. */
export const propChecks: readonly Rule[] = [
  {
    id: 'begins-in-mid-air',
    severity: 'stop',
    setting: 'supports',
    find: ({ afloat, resolved: { settings } }) => {
      const [worst] = [...afloat].sort((a, b) => b.aloneMm - a.aloneMm)
      if (!worst) return
      const others = afloat.length > 1 ? ` So do ${count(afloat.length - 1, 'other place')}.` : ''
      return {
        severity: worst.aloneMm < SOON_JOINED ? 'caution' : 'stop',
        atZMm: worst.zMm,
        evidence: `At z ${worst.zMm.toFixed(1)} mm a piece of ${worst.areaMm2.toFixed(worst.areaMm2 < 10 ? 1 : 0)} mm² begins with nothing under it, and grows by ${worst.aloneMm.toFixed(1)} mm before it meets anything that stands.${others}`,
        means: worst.aloneMm < SOON_JOINED ? 'Its first lines are laid into the air.' : 'It is laid into the air and comes loose.',
        todo:
          settings.supports === 'off'
            ? 'Support it, turn the part, or place its bodies on the bed one by one.'
            : 'Let supports stand everywhere, turn the part, or place its bodies on the bed one by one.',
        fix:
          settings.supports === 'off'
            ? { values: { supports: 'plain' } }
            : settings.supportFrom === 'bed'
              ? { values: { supportFrom: 'everywhere' } }
              : undefined,
      }
    },
  },
  {
    id: 'overhang-unheld',
    severity: 'caution',
    setting: 'supportFrom',
    find: ({ unheldMm2, resolved: { settings } }) =>
      unheldMm2 < LEAST_UNHELD
        ? undefined
        : {
            evidence: `Supports from the ${settings.supportFrom === 'bed' ? 'bed alone' : 'places allowed'} do not reach ${Math.round(unheldMm2)} mm² of overhang.`,
            means: 'It is laid into the air.',
            todo: settings.supportFrom === 'bed' ? 'Let supports stand on the part too, or turn it.' : 'Turn the part.',
            fix: settings.supportFrom === 'bed' ? { values: { supportFrom: 'everywhere' } } : undefined,
          },
  },
  {
    id: 'overhangs-without-supports',
    severity: 'note',
    setting: 'supports',
    find: ({ overAirMm, resolved: { settings } }) =>
      settings.supports !== 'off' || overAirMm < MUCH_OVER_AIR
        ? undefined
        : {
            evidence: `${(overAirMm / 1000).toFixed(1)} m of line hang over air by half or more, and nothing holds them up.`,
            means: 'What leans more than about 60° sags.',
            todo: 'Compare how else it could lie, or support it. Branches suit rounded figures, plain ones broad flat roofs.',
            fix: { values: { supports: 'plain' } },
          },
  },
  {
    id: 'bridge-long',
    severity: 'caution',
    setting: 'bridgeSpeed',
    find: ({ longestBridgeMm, sag }) =>
      longestBridgeMm <= LONG_BRIDGE
        ? undefined
        : {
            evidence: `The longest line across air spans ${longestBridgeMm.toFixed(0)} mm and comes down by some ${sag.bridgeMm.toFixed(1)} mm in its middle.`,
            means: 'It sags before it sets.',
            todo: 'Slow bridges, full fan there, or a support in the middle.',
          },
  },
  {
    id: 'bridge-fast',
    severity: 'note',
    setting: 'bridgeSpeed',
    find: ({ longestBridgeMm, resolved: { settings } }) =>
      longestBridgeMm < 5 || settings.bridgeSpeed <= 60
        ? undefined
        : {
            severity: settings.bridgeSpeed > FAR_TOO_FAST ? 'caution' : 'note',
            evidence: `Lines across up to ${longestBridgeMm.toFixed(0)} mm of air are laid at ${settings.bridgeSpeed} mm/s.`,
            means: 'Bridges want slow speed and strong cooling.',
            todo: '',
            fix: { values: { bridgeSpeed: 30 } },
          },
  },
  {
    id: 'bridge-uncooled',
    severity: 'note',
    setting: 'bridgeFan',
    find: ({ longestBridgeMm, setup: { material }, resolved: { settings } }) =>
      longestBridgeMm < 5 || settings.bridgeFan >= 60 || material.family === 'ABS'
        ? undefined
        : {
            evidence: `${settings.bridgeFan} % fan while up to ${longestBridgeMm.toFixed(0)} mm of air are bridged.`,
            means: 'Bridges want slow speed and strong cooling.',
            todo: '',
            fix: { values: { bridgeFan: 100 } },
          },
  },
  {
    id: 'branches-lean-too-far',
    severity: 'caution',
    setting: 'branchLean',
    find: ({ resolved: { settings } }) => {
      // CP-P3, common practice: with a limit of 60°, branches lean 50 to 55°.
      const most = settings.supportAngle - 5
      if (settings.supports !== 'branching' || settings.branchLean <= most) return
      return {
        evidence: `Branches lean up to ${settings.branchLean}°; what leans more than ${settings.supportAngle}° counts as an overhang itself.`,
        means: 'They sag where they lean most.',
        todo: `Let them lean ${most}° at most.`,
        fix: { values: { branchLean: most } },
      }
    },
  },
  {
    id: 'support-dense',
    severity: 'note',
    setting: 'supportDensity',
    find: ({ resolved: { settings } }) =>
      settings.supports !== 'plain' || settings.supportDensity < 20
        ? undefined
        : {
            evidence: `Supports of ${settings.supportDensity} % density.`,
            means: 'They are hard to remove; 5 to 10 % hold.',
            todo: '',
            fix: { values: { supportDensity: 10 } },
          },
  },
  {
    id: 'support-concentric',
    severity: 'note',
    setting: 'supportPattern',
    find: ({ resolved: { settings } }) =>
      settings.supports !== 'plain' || settings.supportPattern !== 'concentric'
        ? undefined
        : {
            evidence: 'Supports follow their rim in loops.',
            means: 'That wastes plastic; grid or triangles are sturdier.',
            todo: '',
            fix: { values: { supportPattern: 'grid' } },
          },
  },
]
