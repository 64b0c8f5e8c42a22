import { asPercent, atHeight, type Figure, fixed, inPlain, mm, percent, row } from './figure'

const plain = { unit: '%', per: 0.01, digits: 0 }

export const gloss: Figure = {
  ...row(
    'gloss',
    'Gloss',
    '',
    'Of the outer wall, from matte to glossy: what is laid slowly against what the hot end can melt shines. The spread shows as bands. Semi-empirical.',
    'more',
    ({ gloss }) => ({ ...percent(gloss.mean), note: `spread ${fixed(100 * gloss.spread, 0)}` }),
  ),
  id: 'gloss',
  // Some want it matte.
  taste: true,
  noun: 'gloss',
  plain,
  value: (p) => p.gloss.mean,
  shown: inPlain(plain),
  explain: (p, { constants: { finish } }) => ({
    equation: `g = 1 / (1 + (u/${finish.glossTurn})^${finish.glossSteepness}), u = flow of the outer wall over the failing flow; mean over its length`,
    terms: [
      { label: 'outer wall really runs at', value: `${Math.round(p.realSpeeds.outerWall.speedMmS)} mm/s` },
      {
        label: 'flow there',
        value: `${(p.realSpeeds.outerWall.speedMmS * p.settings.layerHeight * p.settings.lineWidth).toFixed(1)} mm³/s`,
      },
      { label: `hot end fails at ${p.settings.nozzleTemperature} °C`, value: `${p.melt.failsAt.toFixed(1)} mm³/s` },
      { label: 'spread over the wall', value: asPercent(p.gloss.spread) },
    ],
    place:
      p.gloss.band > 0.05 ? `It changes most at z ${mm(p.gloss.bandAtZMm)}, by ${asPercent(p.gloss.band)}.` : 'It is even over the height.',
    basis: 'assumed',
    source: 'Semi-empirical: slow walls shine, fast ones are matte (common practice).',
  }),
  parts: [
    row(
      'gloss-band',
      'Sharpest band',
      '',
      'Where gloss changes most from one layer to the next, and by how much.',
      'less',
      ({ gloss }) => ({
        ...percent(gloss.band),
        ...(gloss.band > 0.005 ? { note: atHeight(gloss.bandAtZMm) } : {}),
      }),
    ),
  ],
}
