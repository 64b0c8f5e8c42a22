import { raised } from '../shapes/strokes'
import { choice } from '../spec/question'
import type { TrialKind } from './kind'

/** Posts, what spans them, and rows behind each other, mm. */
const [POST, DEPTH, RISE, SLAB, GAP] = [7, 6, 7, 1.2, 4]
/** Sag at which a bridge no longer counts as clean, mm, and what a span that was read so scatters by. Assumed. */
const [CLEAN_SAG, NOISE] = [0.3, 0.3]

export const bridge: TrialKind = {
  id: 'bridge',
  name: 'Bridge',
  tells: 'how far this spool spans open air',
  how: 'Look beneath each span: the longest whose lines are straight counts.',
  narrows: ['finish.bridgeSag'],
  advises: [],
  owner: 'spool',
  varied: {
    label: 'Span',
    unit: 'mm',
    values: () => ({}),
    usual: () => ({ from: 10, to: 60, step: 10 }),
    within: ({ printer: { buildVolume } }) => ({
      least: 3,
      most: Math.min(buildVolume[0], buildVolume[1]) - 2 * POST - 20,
      what: 'what the bed has room for',
    }),
  },
  size: { band: RISE + SLAB, foot: 0.8, length: 60 },
  bandsRun: 'across',
  seenFrom: 'above',
  bandAt: (index, count) => [(index - count / 2) * (DEPTH + GAP), (index + 1 - count / 2) * (DEPTH + GAP)],
  values: () => ({ wallCount: 2, infillDensity: 15, topLayers: 3, bottomLayers: 2, supports: 'off', brim: 'none' }),
  shape(kit, { bands, size: { foot } }) {
    const behind = DEPTH + GAP
    // One rail from front to back holds all of them.
    const rail = kit.box(4, bands.length * behind, Math.max(foot, 0.6))
    return bands.reduce((all, { label, value = 10 }, i) => {
      const y = (i - (bands.length - 1) / 2) * behind
      const out = (value + POST) / 2
      const posts = [-out, out].map((x) => kit.post(POST, DEPTH, RISE).at(x, y, foot))
      const strip = kit.box(value + 2 * POST, DEPTH, Math.max(foot, 0.6)).at(0, y, 0)
      const slab = kit.post(value + 2 * POST, DEPTH, SLAB).at(0, y, foot + RISE)
      // On top of a post, to be read from above.
      const number = raised(kit, label, 0.5)
        ?.turned(-90, 0, 0)
        .at(-out, y - 2.5, foot + RISE + SLAB)
      return number ? all.plus(strip, ...posts, slab, number) : all.plus(strip, ...posts, slab)
    }, rail)
  },
  questions: { band: [choice('under', 'Underside', { straight: 'Straight', sags: 'Sags', fallen: 'Fallen' }, true)], whole: [] },
  judge({ spec, bands }) {
    const read = spec.bands.flatMap(({ value }, i) =>
      value === undefined || bands[i]?.under === undefined ? [] : [{ value, under: bands[i]!.under }],
    )
    const spoiled = Math.min(Infinity, ...read.filter(({ under }) => under !== 'straight').map(({ value }) => value))
    const clean = Math.max(0, ...read.filter(({ under, value }) => under === 'straight' && value < spoiled).map(({ value }) => value))
    if (clean === 0)
      return {
        found: read.length === 0 ? 'Nothing was read.' : 'Not even the shortest span is straight.',
        evidence: [],
        advice: [],
        warnings: read.length === 0 ? [] : ['Slow bridges down and cool them fully, then repeat.'],
      }
    // The limit lies between the last straight one and the first that sags.
    const limit = spoiled < Infinity ? Math.sqrt(clean * spoiled) : clean
    return {
      found: `Straight up to ${clean} mm.`,
      short: `${clean} mm`,
      evidence: [{ on: 'constant', constant: 'finish.bridgeSag', values: [CLEAN_SAG / limit ** 2], noise: NOISE }],
      advice: [],
      next: { kind: 'gloss', why: 'What hangs and spans is known: how it shines.' },
      warnings: read.some(({ under, value }) => under === 'straight' && value > spoiled)
        ? ['A longer span is straight where a shorter one sags: the readings contradict each other.']
        : [],
    }
  },
}
