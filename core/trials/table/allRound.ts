import { resolveSettings } from '../../setup/resolve'
import { withNumber } from '../shapes/tower'
import { wedge } from '../shapes/wedge'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'

/** Lettering, an overhang of 45°, a thin ear, a hole and a flat top: whatever was found, once together. */
export const allRound: TrialKind = {
  id: 'allRound',
  name: 'All-round part',
  tells: 'whether all that was found holds together',
  how: 'Look at it as you would at a part of your own. What is wrong is looked for under its own trial.',
  narrows: [],
  advises: [],
  owner: 'spool',
  size: { band: 20, foot: 0, length: 30 },
  forms: [
    { id: 'usual', name: 'Lettering, overhang, ear' },
    { id: 'own', name: 'A part of your own, in small' },
  ],
  bandsRun: 'up',
  seenFrom: 'front',
  values: () => ({ wallCount: 3, infillDensity: 15, topLayers: 4, bottomLayers: 4, supports: 'off', brim: 'none' }),
  shape(kit, { size: { band, length }, values }, setup) {
    const { lineWidth } = resolveSettings(setup, values).settings
    const body = kit.box(length, 20, band).minus(kit.cone(3, 3, band + 2).at(6, 0, -1), kit.cone(3, 3, 30).turned(90, 0, 0).at(-6, 15, 12))
    const chin = wedge(kit, 6, 6, 20).at(length / 2, 0, band - 6)
    const ear = kit.box(10, 2 * lineWidth, 12).at(-length / 2 - 4.5, 0, 0)
    return withNumber(kit, body.plus(chin, ear), '45', { depth: 20, foot: 3, x: 8 })
  },
  questions: {
    band: [],
    whole: [
      choice('walls', 'Walls', { good: 'Good', fair: 'Fair', poor: 'Poor' }, true),
      choice('top', 'Top', { closed: 'Closed', gaps: 'Gaps' }, true),
      choice('under', 'Beneath the chin', { clean: 'Clean', rough: 'Rough' }, true),
      choice('ear', 'Thin ear', { holds: 'Holds', snaps: 'Snaps' }, true),
      choice('strings', 'Strings', { none: 'None', hairs: 'Hairs', webs: 'Webs' }, true),
    ],
  },
  judge({ whole }) {
    const faults = [
      whole.walls === 'poor' && ({ kind: 'flowLadder', why: 'Poor walls: what flow it takes.' } as const),
      whole.ear === 'snaps' && ({ kind: 'temperature', why: 'What snaps is too cold.' } as const),
      whole.strings === 'webs' && ({ kind: 'retraction', why: 'Webs: what must be pulled back.' } as const),
      whole.under === 'rough' && ({ kind: 'overhang', why: 'Rough undersides: how far it hangs over.' } as const),
      whole.top === 'gaps' && ({ kind: 'dimensions', why: 'Gaps in the top: whether flow is right.' } as const),
    ].filter((fault) => fault !== false)
    return {
      found:
        faults.length === 0
          ? 'Known for this machine.'
          : `Not yet: ${faults.map(({ why }) => why.toLowerCase().replace(/\.$/, '')).join('; ')}.`,
      short: faults.length === 0 ? 'known' : `${faults.length} to mend`,
      evidence: [],
      advice: [],
      ...(faults[0] ? { next: faults[0] } : {}),
      warnings: [],
    }
  },
}
