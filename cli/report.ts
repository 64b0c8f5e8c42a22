import { doubt } from '@sable/core/doubt/doubt'
import { figureRows, isFigureId } from '@sable/core/figures/figures'
import { type FigureRow, figureIds } from '@sable/core/figures/table/figure'
import { statedLoad } from '@sable/core/figures/table/stated'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import type { ProgramFigures } from '@sable/core/program/timeProgram'
import { formatDuration } from '@sable/core/units/format'
import type { Fields } from '@sable/core/views/fields'
import type { MoveFacts } from '@sable/core/views/moveFacts'
import type { Foretold } from './candidate'

/** The documented JSON object of `predict`: see docs/command-line.md. */
export function asJson({ prediction, doubtful }: Foretold, purpose: Purpose): object {
  const { origins: _, layersSlowed: __, layersTooFast: ___, tracks: ____, ...shown } = prediction
  return {
    ...shown,
    statedLoad: statedLoad(prediction, purpose),
    doubts: Object.fromEntries(figureIds.map((figure) => [figure, doubt(figure, doubtful)])),
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
export function asTable(names: readonly string[], foretold: readonly Foretold[], purpose: Purpose): string {
  const predictions = foretold.map(({ prediction }) => prediction)
  const cell = ({ id, of }: FigureRow, { prediction, doubtful }: Foretold): string => {
    const { value, text, unit, note } = of(prediction, purpose)
    const range = isFigureId(id) && value > 0 ? ` ± ${Math.round(100 * doubt(id, doubtful))} %` : ''
    return `${text}${unit === '' || unit === '¤' ? '' : ` ${unit}`}${range}${note === undefined ? '' : `, ${note}`}`
  }
  // Parts that are nothing in every column say nothing.
  const says = (row: FigureRow): boolean => predictions.some((p) => row.of(p, purpose).value !== 0)
  const rows: Row[] = [
    ['', ...names],
    ['Layers', ...predictions.map((p) => String(p.layerCount))],
    ...figureRows.flatMap((figure): Row[] => [
      [figure.label, ...foretold.map((one) => cell(figure, one))],
      ...(figure.parts ?? []).filter(says).map((part): Row => [`  ${part.label}`, ...foretold.map((one) => cell(part, one))]),
    ]),
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
    'Ranges are 80 % ranges, from what the constants of the models scatter by.',
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

/** JSON whose numbers are written out: whoever reads them by eye, or by a simple tool, meets no exponents. */
export const plainJson = (value: unknown, indent: number | undefined = 2): string =>
  // Texts are passed over as wholes: what looks like a number there is none.
  JSON.stringify(value, null, indent).replace(/"(?:[^"\\]|\\.)*"|-?\d(?:\.\d+)?e[+-]\d+/g, (token) =>
    token.startsWith('"') ? token : decimal(Number(token)),
  )

/** A number as a decimal, to fifteen digits. */
const decimal = (value: number): string => {
  if (Number.isInteger(value)) return BigInt(value).toString()
  const digits = Math.max(0, Math.min(100, 14 - Math.floor(Math.log10(Math.abs(value)))))
  return value
    .toFixed(digits)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '')
}

export function print(text: string): void {
  process.stdout.write(`${text}\n`)
}
