import { type Doubtful, rangeOf, reachOf, spreadOf } from '../doubt/doubt'
import type { PlateFigures } from '../plate/plateWork'
import { splitDuration } from '../units/format'
import { type ForetoldPrint, UNTOLD_START_S } from './foretoldPrint'

/**
 * Freezes what is foretold of a plate of several parts. Its parts rest on the same constants and are off together: the plate is
 * as doubtful as the most doubtful of them.
 *
 * @param doubts of its parts, in their order
 */
export function foretoldPlate(plate: Omit<PlateFigures, 'problems'>, doubts: readonly Doubtful[]): ForetoldPrint {
  const { timeS, startUpS: startS = UNTOLD_START_S, massG, cost, heightMm, parts } = plate
  const most = (of: (doubtful: Doubtful) => number): number => doubts.reduce((all, own) => Math.max(all, of(own)), 0)
  const spreads = { time: most((of) => spreadOf('time', of)), filament: most((of) => spreadOf('filament', of)) }
  const reach = { time: most((of) => reachOf('time', of)), filament: most((of) => reachOf('filament', of)) }
  const ownS = parts.reduce((sum, part) => sum + part.timeS, 0)
  const slope = parts.reduce((sum, part, i) => sum + (part.timeS / ownS) * -(doubts[i]?.slopes['print.acceleration']?.time ?? 0), 0)
  const figure = (id: string, label: string, value: number, written: { text: string; unit: string }, by: number) => {
    const [low, high] = rangeOf(value, by)
    return { id, label, value, ...written, low, high }
  }
  return {
    timeS,
    startS,
    massG,
    cost,
    heightMm,
    slope: Math.min(1, Math.max(0, slope)),
    spreads,
    reach,
    inForce: Object.fromEntries(Object.entries(doubts[0]?.setup.known ?? {}).map(([id, { value }]) => [id, value])),
    figures: [
      figure('time', 'Time', timeS, splitDuration(timeS), reach.time * spreads.time),
      figure('filament', 'Filament', massG, { text: massG.toFixed(1), unit: 'g' }, reach.filament * spreads.filament),
      figure('cost', 'Cost', cost, { text: cost.toFixed(2), unit: '' }, reach.filament * spreads.filament),
    ],
  }
}
