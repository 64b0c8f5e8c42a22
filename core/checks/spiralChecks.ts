import { formatDuration } from '../units/format'
import type { Rule } from './check'

/** A wall that rises as one line closes a modelled one that is at most so many lines thick. Assumed. */
const LINES_THICK = 3
/** Less time than this, s, or less than this share, is not worth a word. */
const [LEAST_SAVED, LEAST_SHARE] = [120, 0.15]

/** What a wall that rises as one line leaves open, and where one would do. */
export const spiralChecks: readonly Rule[] = [
  {
    id: 'spiral-leaves-open',
    severity: 'caution',
    setting: 'spiralWall',
    find: ({ vessel: { open }, resolved: { settings } }) =>
      settings.spiralWall === 'on' && open.areaMm2 > 0
        ? {
            atZMm: open.atZMm,
            evidence: `Faces of ${open.areaMm2.toFixed(0)} mm² within it look up, the largest at z ${open.atZMm.toFixed(1)} mm.`,
            means: 'A spiral wall lays no tops: the part is open there, and the wall above begins in the air.',
            todo: 'Turn the spiral wall off, or model the face as a slope.',
            fix: { values: { spiralWall: 'off' } },
          }
        : undefined,
  },
  {
    id: 'spiral-leans-in',
    severity: 'caution',
    setting: 'lineWidth',
    find: ({ vessel: { leansIn }, resolved: { settings } }) => {
      const { lineWidth, spiralWall } = settings
      if (spiralWall === 'off' || leansIn.mm <= lineWidth / 2) return
      const wide = Math.ceil(20 * 2.1 * leansIn.mm) / 20
      return {
        atZMm: leansIn.atZMm,
        evidence: `At z ${leansIn.atZMm.toFixed(1)} mm the wall draws in by ${leansIn.mm.toFixed(2)} mm a turn, and is ${lineWidth.toFixed(2)} mm wide.`,
        means: 'Less than half of each turn lies on the one below: it may gape.',
        todo: 'Lay it wider, or in thinner layers.',
        fix: { values: { lineWidth: Math.max(wide, lineWidth + 0.05) } },
      }
    },
  },
  {
    id: 'spiral-would-suit',
    severity: 'note',
    setting: 'spiralWall',
    find: ({ vessel, time, resolved: { settings }, overridden }) => {
      const { lineWidth, spiralWall, infillDensity, topLayers, copies, copyOrder } = settings
      const isThin = vessel.wallMm !== undefined && vessel.wallMm <= LINES_THICK * lineWidth
      const isShell = infillDensity === 0 && topLayers === 0
      if (spiralWall === 'on' || !vessel.isVessel || vessel.open.areaMm2 > 0 || !(isThin || isShell)) return
      if (overridden.has('spiralWall') || (copies > 1 && copyOrder === 'together')) return
      const { outerWall, topBottom, bridge } = time.timeByFeatureS
      const savedS = time.timeS - outerWall - topBottom - bridge
      if (savedS < LEAST_SAVED || savedS < LEAST_SHARE * time.timeS) return
      return {
        evidence: isThin
          ? `It is a vessel with a wall of ${vessel.wallMm!.toFixed(1)} mm on every layer.`
          : 'It is one body on every layer, printed without tops and infill.',
        means: `A spiral wall has no seam, and would spare about ${formatDuration(savedS)}: all but the outer wall and the bottom, less where layers wait for their least time.`,
        todo: 'Turn the spiral wall on; lay it as wide as the wall has to be strong, 0.8 to 1.2 mm to hold water.',
        fix: { values: { spiralWall: 'on' } },
      }
    },
  },
]
