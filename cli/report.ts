import type { Prediction } from '@sable/core/predict'
import { formatDuration } from '@sable/core/units/format'

/** The documented JSON object of `predict`: see docs/command-line.md. */
export function asJson(prediction: Prediction): object {
  const { timeS, timeByFeatureS, layerCount, filament, surface, strength, limiters, realSpeeds, mesh, checks, settings } = prediction
  return { timeS, timeByFeatureS, layerCount, filament, surface, strength, limiters, realSpeeds, mesh, checks, settings }
}

type Row = readonly [label: string, ...values: string[]]

/** The figures of one or several predictions as a plain table. */
export function asTable(names: readonly string[], predictions: readonly Prediction[]): string {
  const row = (label: string, value: (p: Prediction) => string): Row => [label, ...predictions.map(value)]
  const force = (label: string, load: keyof Prediction['strength']): Row => row(label, (p) => `${Math.round(p.strength[load].loadN)} N`)
  const rows: Row[] = [
    ['', ...names],
    row('Time', (p) => formatDuration(p.timeS)),
    row('Layers', (p) => `${p.layerCount}`),
    row('Filament', (p) => `${(p.filament.lengthMm / 1000).toFixed(2)} m, ${p.filament.massG.toFixed(1)} g`),
    row('Cost', (p) => p.filament.cost.toFixed(2)),
    row('Surface Ra', (p) => `${p.surface.raMeanUm.toFixed(1)} µm, 95 % under ${p.surface.ra95Um.toFixed(1)} µm`),
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
    'Strength is an estimate for one material and one load, never a rating. Times do not include heating up.',
  ].join('\n')
}
