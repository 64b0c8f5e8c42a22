import { tableCsv } from '../../ui/TableSheet'
import { measures, signed } from './measures'
import type { Trail } from './useTrail'

/** A trail as a table: a row for its beginning and one after each step that is taken, with all figures. */
export function trailCsv({ from, taken, words, predictions, purpose }: Trail): string {
  return tableCsv(
    [
      { label: 'Step', of: (row) => (row === 0 ? from.name : words.get(taken[row - 1]!.id)!.what) },
      { label: 'from', of: (row) => (row === 0 ? '' : words.get(taken[row - 1]!.id)!.from) },
      { label: 'to', of: (row) => (row === 0 ? '' : words.get(taken[row - 1]!.id)!.to) },
      ...measures.map((one) => ({
        label: one.label,
        of: (row: number) => predictions[row] && one.of(predictions[row], purpose),
      })),
    ],
    predictions.length,
  )
}

/** A trail in one sentence, for a note; nothing until both of its ends are known. */
export function trailSentence({ taken, words, values, measure }: Trail): string | undefined {
  const [start, end] = [values[0], values.at(-1)]
  if (start === undefined || end === undefined) return undefined
  const steps = taken.map(({ id }, i) => {
    const { what, from, to, unit } = words.get(id)!
    const [was, is] = [values[i], values[i + 1]]
    const change = was === undefined || is === undefined ? '' : signed(measure, is - was)
    return `${what} ${from} to ${to}${unit === '' ? '' : ` ${unit}`}${change === '' ? '' : ` (${change})`}`
  })
  return `From ${measure.shown(start)} to ${measure.shown(end)}: ${steps.join(', ')}.`
}
