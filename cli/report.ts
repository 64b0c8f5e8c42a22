import { doubt, doubtfulFigures } from '@sable/core/doubt/doubt'
import { statedLoad } from '@sable/core/figures/judge'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import type { ProgramFigures } from '@sable/core/program/timeProgram'
import { formatDuration } from '@sable/core/units/format'
import type { Fields } from '@sable/core/views/fields'
import type { MoveFacts } from '@sable/core/views/moveFacts'

/** The documented JSON object of `predict`: see docs/command-line.md. */
export function asJson(prediction: Prediction, purpose: Purpose): object {
  const { origins: _, layersSlowed: __, layersTooFast: ___, tracks: ____, ...shown } = prediction
  return {
    ...shown,
    statedLoad: statedLoad(prediction, purpose),
    doubts: Object.fromEntries(doubtfulFigures.map((figure) => [figure, doubt(figure, prediction, purpose)])),
  }
}

/** Fields by layer, facet and section: see docs/command-line.md. Those of moves are told by `toolpath --layer`. */
export function fieldsAsJson({ layers, facets, sections }: Fields): string {
  // JSON knows no NaN and no infinity: both become null, "none of it".
  return JSON.stringify({ layers, facets, sections }, (_, value: unknown) =>
    ArrayBuffer.isView(value) ? Array.from(value as Float64Array) : value,
  )
}

type Row = readonly [label: string, ...values: string[]]

/** The figures of one or several predictions as a plain table. */
export function asTable(names: readonly string[], predictions: readonly Prediction[], purpose: Purpose): string {
  const row = (label: string, value: (p: Prediction) => string): Row => [label, ...predictions.map(value)]
  const force = (label: string, load: keyof Prediction['strength']): Row => row(label, (p) => `${Math.round(p.strength[load].loadN)} N`)
  const rows: Row[] = [
    ['', ...names],
    row('Time', (p) => `${formatDuration(p.timeS)} ± ${Math.round(100 * doubt('time', p, purpose))} %`),
    ...(predictions.some((p) => p.startUpS !== undefined)
      ? [row('  before it', (p) => (p.startUpS === undefined ? '' : formatDuration(p.startUpS)))]
      : []),
    row('Layers', (p) => `${p.layerCount}`),
    row('Filament', (p) => `${(p.filament.lengthMm / 1000).toFixed(2)} m, ${p.filament.massG.toFixed(1)} g`),
    ...(predictions.some((p) => p.filament.supportG > 0) ? [row('  supports', (p) => `${p.filament.supportG.toFixed(1)} g`)] : []),
    row('Travel', ({ travel }) => `${(travel.lengthMm / 1000).toFixed(1)} m`),
    ...(predictions.some((p) => (p.travel.savedMm ?? 0) > 0)
      ? [
          row('  spared', ({ travel }) =>
            travel.savedMm === undefined ? '' : `${(travel.savedMm / 1000).toFixed(1)} m by finishing each hole`,
          ),
        ]
      : []),
    row('Cost', (p) => p.filament.cost.toFixed(2)),
    row('Surface Ra', (p) => `${p.surface.raMeanUm.toFixed(1)} µm, 95 % under ${p.surface.ra95Um.toFixed(1)} µm`),
    row('Gloss', ({ gloss }) => `${Math.round(100 * gloss.mean)} %, spread ${Math.round(100 * gloss.spread)}`),
    row('Melt load', ({ melt }) => `${Math.round(100 * melt.load95)} % of ${melt.failsAt.toFixed(1)} mm³/s`),
    row('Cooling margin', ({ cooling }) => `${cooling.margin.toFixed(1)} at z ${cooling.atZMm.toFixed(1)} mm`),
    row('Layer bond', ({ bond }) => `${Math.round(100 * bond.mean)} %, worst ${Math.round(100 * bond.worst)} %`),
    row('Sway', ({ sway }) => `${(1000 * sway.topMm).toFixed(1)} µm`),
    row('Strings', ({ strings }) => strings.index.toFixed(2)),
    row('Load', (p) => {
      const { kind, along, loadN, by } = statedLoad(p, purpose)
      return `${loadN.toPrecision(3)} N, ${kind} along ${along}${by === 'buckling' ? ', buckles' : ''}`
    }),
    force('Pull X', 'pullX'),
    force('Pull Y', 'pullY'),
    force('Pull Z', 'pullZ'),
    force('Bend X', 'bendX'),
    force('Bend Y', 'bendY'),
    force('Bend Z', 'bendZ'),
  ]
  const widths = rows[0]!.map((_, column) => Math.max(...rows.map((cells) => cells[column]!.length)))
  const lines = rows.map((cells) =>
    cells
      .map((cell, column) => (column === 0 ? cell.padEnd(widths[column]!) : cell.padStart(widths[column]!)))
      .join('  ')
      .trimEnd(),
  )
  const checks = predictions.flatMap((p, i) =>
    p.checks.map((check) => `${predictions.length > 1 ? `${names[i]}: ` : ''}${check.severity}: ${check.message}`),
  )
  return [
    ...lines,
    '',
    ...checks,
    'Strength is an estimate for one material and one load, never a rating. Heating up, homing and purging come before the printing time.',
  ].join('\n')
}

/** The moves of a layer with their reasons, as plain text. */
export function asMoveTable(moves: readonly MoveFacts[]): string {
  const rows = [
    ['move', 'feature', 'to x', 'y', 'mm', 'asked', 'peak mm/s', 'mm³/s', 'melt %', 's', 'why'],
    ...moves.map((m) => [
      `${m.move}`,
      m.feature,
      m.to[0].toFixed(2),
      m.to[1].toFixed(2),
      m.lengthMm.toFixed(2),
      m.askedMmS.toFixed(1),
      m.peakMmS.toFixed(1),
      m.flowMm3S.toFixed(2),
      m.meltLoad === undefined ? '' : (100 * m.meltLoad).toFixed(0),
      m.durationS.toFixed(3),
      `${m.why}${m.overrides.length > 0 ? ` (${m.overrides.join(', ')})` : ''}`,
    ]),
  ]
  const widths = rows[0]!.map((_, column) => Math.max(...rows.map((cells) => cells[column]!.length)))
  const isText = (column: number): boolean => column === 1 || column === 10
  return rows
    .map((cells) =>
      cells
        .map((cell, i) => (isText(i) ? cell.padEnd(widths[i]!) : cell.padStart(widths[i]!)))
        .join('  ')
        .trimEnd(),
    )
    .join('\n')
}

/** What a program takes on a printer, as plain text. */
export function asProgramTable(name: string, printer: string, figures: ProgramFigures): string {
  const byTime = Object.entries(figures.timeByFeatureS).sort((a, b) => b[1] - a[1])
  const held = Object.entries(figures.limiters)
    .filter(([, share]) => share >= 0.005)
    .sort((a, b) => b[1] - a[1])
  const rows: [string, string][] = [
    ['Program', name],
    ['Printer', printer],
    ['Time', formatDuration(figures.timeS)],
    ...byTime.map(([feature, seconds]): [string, string] => [`  ${feature}`, formatDuration(seconds)]),
    ['Layers', String(figures.layerCount)],
    ['Filament', `${(figures.filament.lengthMm / 1000).toFixed(2)} m`],
    ['Moves', String(figures.moves)],
    ...held.map(([limiter, share]): [string, string] => [`  held by ${limiter}`, `${(100 * share).toFixed(1)} %`]),
  ]
  const width = Math.max(...rows.map(([label]) => label.length))
  const unknown = Object.entries(figures.unknown)
  return [
    ...rows.map(([label, value]) => `${label.padEnd(width)}  ${value}`),
    ...(unknown.length > 0 ? ['', `Not understood and left out: ${unknown.map(([word, count]) => `${word} (${count})`).join(', ')}.`] : []),
    'Heating and homing are not included.',
  ].join('\n')
}

export function print(text: string): void {
  process.stdout.write(`${text}\n`)
}
