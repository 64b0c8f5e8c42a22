import type { Printer } from '@sable/core/shelf/printer'
import { plateOf } from '@sable/core/toolpath/plate'
import { splitDuration } from '@sable/core/units/format'
import type { FrozenPrint } from './prints'

/** What is as many times as much as there are copies. */
const PER_COPY = ['time', 'unslowed', 'filament', 'cost'] as const

/** How many copies of a print can stand on one plate, one at a time; one where it has several already, or nothing is known of its size. */
export function platesOf({ foretold: { sizeMm }, resolved }: FrozenPrint, printer: Printer | undefined): { most: number; gap: number } {
  const gap = Number(resolved.copyGap?.value ?? 8)
  if (!sizeMm || !printer || Number(resolved.copies?.value ?? 1) > 1) return { most: 1, gap }
  return plateOf(sizeMm, printer, gap)
}

/**
 * The print of a plate of several copies, one at a time: its moves are those of one copy as often as there are copies, its start is one. What the
 * nozzle travels between copies, some seconds, is left out.
 */
export function plateOfCopies(frozen: FrozenPrint, copies: number, gap: number): FrozenPrint {
  if (copies < 2) return frozen
  const { foretold, values, resolved } = frozen
  const own = { copies, copyOrder: 'oneAtATime', copyGap: gap } as const
  const times = (value: number): number => value * copies
  return {
    ...frozen,
    values: { ...values, ...own },
    resolved: { ...resolved, ...Object.fromEntries(Object.entries(own).map(([name, value]) => [name, { value, origin: 'profile' }])) },
    foretold: {
      ...foretold,
      timeS: times(foretold.timeS),
      massG: times(foretold.massG),
      cost: times(foretold.cost),
      figures: foretold.figures.map((figure) => {
        if (!PER_COPY.some((id) => id === figure.id)) return figure
        const value = times(figure.value)
        const written =
          figure.id === 'time' || figure.id === 'unslowed'
            ? splitDuration(value)
            : { text: value.toFixed(figure.text.split('.')[1]?.length ?? 0), unit: figure.unit }
        return { ...figure, value, low: times(figure.low), high: times(figure.high), ...written }
      }),
    },
  }
}
