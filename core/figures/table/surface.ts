import { facetRoughness, type LaidLine } from '../../physics/finish/roughness'
import { addedUm } from '../../physics/finish/surfaceMarks'
import type { Prediction } from '../../pipeline/predict'
import { type Figure, fixed, inPlain, mm, row } from './figure'
import { seenSurface } from './stated'

const lineOf = ({ settings: { layerHeight, lineWidth } }: Prediction): LaidLine => ({ height: layerHeight, width: lineWidth })

const plain = { unit: 'µm', per: 1, digits: 1 }

export const surface: Figure = {
  id: 'surface',
  label: 'Surface Ra',
  base: 'µm',
  help: 'Mean roughness over what will be seen, the face on the bed left out, from layer height and slope (Pandey 2003, semi-empirical), tops from their lines.',
  better: 'less',
  of: (p, purpose) => {
    const { raMeanUm } = seenSurface(p, purpose)
    return {
      value: raMeanUm,
      text: fixed(raMeanUm, 1),
      unit: 'µm',
      ...(purpose.seen === 'all' ? {} : { note: purpose.seen }),
      basis: 'calculated',
    }
  },
  noun: 'surface',
  plain,
  value: (p, purpose) => seenSurface(p, purpose).raMeanUm,
  shown: inPlain(plain),
  limit: { name: 'maxRaUm', words: (wanted) => `surface under ${wanted}` },
  explain: (p, { constants: { finish } }) => ({
    equation: `Ra = k·t / cos θ up to ${finish.stairLimit}° from the vertical, that of round-edged lines side by side when flat, ${finish.downward} times that facing down; mean over the area`,
    terms: [
      { label: 'layer height t', value: mm(p.settings.layerHeight, 2) },
      { label: 'k', value: `${finish.stair.toFixed(1)} µm per mm` },
      { label: 'a vertical wall', value: `${facetRoughness(lineOf(p), 0, false, finish).toFixed(1)} µm` },
      { label: 'a flat top', value: `${facetRoughness(lineOf(p), Math.PI / 2, false, finish).toFixed(1)} µm` },
      ...(p.melt.missing > 0.001
        ? [{ label: 'gaps of missing plastic add', value: `${(finish.starved * p.melt.missing).toFixed(1)} µm, as the root of squares` }]
        : []),
      ...p.surfaceMarks
        .map((mark) => [mark.label, addedUm(mark, p.surface)] as const)
        .filter(([, um]) => um >= 0.05)
        .map(([label, um]) => ({ label: `${label} add`, value: `${um.toFixed(1)} µm` })),
      { label: 'the roughest twentieth begins at', value: `${p.surface.ra95Um.toFixed(1)} µm` },
    ],
    place: 'Shallow slopes and tops are roughest; the face on the bed is not counted.',
    basis: 'calculated',
    source: 'Pandey, Reddy & Dhande 2003, from memory: a fit to measured surfaces.',
  }),
  parts: [
    {
      id: 'surface-95',
      label: 'Roughest twentieth',
      base: 'µm',
      help: 'Nineteen twentieths of the surface are no rougher than this.',
      better: 'less',
      of: (p, purpose) => {
        const { ra95Um } = seenSurface(p, purpose)
        return { value: ra95Um, text: fixed(ra95Um, 1), unit: 'µm', basis: 'calculated' }
      },
    },
    row(
      'surface-marks',
      'Beside its layers',
      'µm',
      'What waves, seams, pressure that lags, ends of lines, open tops and wet filament add to the mean roughness; each is told apart under why.',
      'less',
      ({ surfaceMarks, surface }) => {
        const all = surfaceMarks.map((mark) => [mark.label, addedUm(mark, surface)] as const)
        const um = all.reduce((sum, [, own]) => sum + own, 0)
        const [label] = all.reduce((most, next) => (next[1] > most[1] ? next : most))
        return { value: um, text: fixed(um, 1), unit: 'µm', ...(um >= 0.05 ? { note: `most by ${label}` } : {}) }
      },
    ),
    row(
      'surface-droop',
      'Overhangs droop',
      'mm',
      'How far lines that hang over come down before they set, where they hang most. 45° rest on what is below. Semi-empirical.',
      'less',
      ({ sag }) => ({
        value: sag.droopMm < 0.005 ? 0 : sag.droopMm,
        text: sag.droopMm < 0.005 ? 'none' : fixed(sag.droopMm, 2),
        unit: sag.droopMm < 0.005 ? '' : 'mm',
        ...(sag.hanging > 0 ? { note: `${Math.round(100 * sag.hanging)} % in the air` } : {}),
      }),
    ),
    row('surface-bridge', 'Bridges sag', 'mm', 'In the middle of the longest line that spans air. Semi-empirical.', 'less', ({ sag }) => ({
      value: sag.bridgeMm < 0.005 ? 0 : sag.bridgeMm,
      text: sag.bridgeMm < 0.005 ? 'none' : fixed(sag.bridgeMm, 2),
      unit: sag.bridgeMm < 0.005 ? '' : 'mm',
      ...(sag.spanMm > 0 ? { note: `over ${fixed(sag.spanMm, 1)} mm` } : {}),
    })),
    row(
      'surface-seam',
      'Seams',
      'mm',
      'Length of the seams of the outer wall, one for each closed wall of each layer.',
      'less',
      ({ seamMm }) => ({ value: seamMm, text: fixed(seamMm, 0), unit: 'mm', basis: 'calculated' }),
    ),
    row(
      'surface-top',
      'Tops close',
      '',
      'Thickness of the top over what the gap between infill lines needs. Under 1 a top may sag or stay open. Semi-empirical.',
      'more',
      ({ topClosure }) => ({
        value: Math.min(topClosure.closure, 10),
        text: topClosure.closure > 10 ? '> 10' : fixed(topClosure.closure, 1),
        unit: '×',
        ...(topClosure.gapMm === undefined ? { note: 'no infill' } : { note: `over ${fixed(topClosure.gapMm, 1)} mm` }),
      }),
    ),
    row(
      'surface-turns',
      'Turns rest',
      '%',
      'How much of each turn of a spiral wall lies on the one below where it leans most: under half of it may gape.',
      'more',
      ({ vessel, settings }) => {
        if (settings.spiralWall === 'off') return { value: 100, text: 'in layers', unit: '', basis: 'calculated' }
        const { mm, atZMm } = vessel.leansOut.mm > vessel.leansIn.mm ? vessel.leansOut : vessel.leansIn
        const rests = 100 * Math.max(0, 1 - mm / settings.lineWidth)
        return {
          value: rests,
          text: fixed(rests, 0),
          unit: '%',
          basis: 'calculated',
          ...(mm > 0 ? { note: `least at ${fixed(atZMm, 1)} mm` } : {}),
        }
      },
    ),
    row(
      'surface-waves',
      'Waves behind corners',
      'µm',
      'The most that the frame swings after a corner of the outer wall, and how far apart the waves stand. Undamped, so an upper bound.',
      'less',
      ({ ringing }) => ({
        value: 1000 * ringing.amplitudeMm,
        text: fixed(1000 * ringing.amplitudeMm, 0),
        unit: 'µm',
        note: `${fixed(ringing.wavelengthMm, 1)} mm apart`,
        basis: ringing.measured ? 'calculated' : 'assumed',
      }),
    ),
  ],
}
