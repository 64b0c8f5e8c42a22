import { type Making, xOfCell, yOfCell } from './making'
import { valuesOf } from './printer/firmware'
import type { Machine } from './printer/machine'
import type { Truth } from './truth'

/** A stretch of height as it is seen from the front, mm: where plastic stands, how dull it is, how it hangs and waves. */
export interface SeenRow {
  readonly from: number
  readonly to: number
  readonly spans: readonly (readonly [left: number, right: number])[]
  readonly dull: number
  readonly sagMm: number
  readonly waveMm: number
}

/** A thing as it stands on the table, seen from the front, mm from its left foot. */
export interface SeenThing {
  readonly widthMm: number
  readonly heightMm: number
  readonly rows: readonly SeenRow[]
  readonly strings: readonly { readonly z: number; readonly from: number; readonly to: number; readonly sag: number }[]
  readonly gaps: readonly { readonly z: number; readonly x: number; readonly width: number }[]
}

const MOST_ROWS = 160
/** What is put into one hole by the eye, mm. */
const CLOSE = 1.1
const MOST_DRAWN = 600

/** What is to be seen of what a machine made; nothing where it made nothing. */
export function seenThing({ layers, strings, gaps }: Pick<Making, 'layers' | 'strings' | 'gaps'>): SeenThing | undefined {
  const top = layers.at(-1)
  if (!top) return undefined
  let [left, right] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const { cells } of layers)
    for (const cell of cells) {
      left = Math.min(left, xOfCell(cell))
      right = Math.max(right, xOfCell(cell))
    }
  if (!Number.isFinite(left)) return undefined
  const perRow = Math.max(1, Math.ceil(layers.length / MOST_ROWS))
  const rows: SeenRow[] = []
  for (let i = 0; i < layers.length; i += perRow) {
    const own = layers.slice(i, i + perRow)
    const most = (of: (layer: (typeof own)[number]) => number): number => Math.max(...own.map(of))
    rows.push({
      from: rows.at(-1)?.to ?? 0,
      to: own.at(-1)!.z,
      spans: spansOf(
        own.flatMap(({ cells }) => [...cells].map(xOfCell)),
        left,
      ),
      dull: most(({ dull }) => dull),
      sagMm: most(({ sagMm }) => sagMm),
      waveMm: most(({ waveMm }) => waveMm),
    })
  }
  const every = <T>(all: readonly T[]): readonly T[] => all.filter((_, i) => i % Math.ceil(all.length / MOST_DRAWN) === 0)
  return {
    widthMm: right - left,
    heightMm: top.z,
    rows,
    strings: every(strings).map(({ z, from, to, sag }) => ({ z, from: from - left, to: to - left, sag })),
    gaps: every(gaps).map(({ z, x, width }) => ({ z, x: x - left, width })),
  }
}

/** Stretches along x that are laid, with what is too narrow to be seen closed. */
function spansOf(xs: readonly number[], left: number): (readonly [number, number])[] {
  const spans: [number, number][] = []
  for (const x of [...new Set(xs)].sort((a, b) => a - b)) {
    const last = spans.at(-1)
    if (last && x - left - last[1] <= CLOSE) last[1] = x - left
    else spans.push([x - left, x - left])
  }
  return spans
}

/** Length of a thing along an axis, mm, as a caliper finds it: out to the edge of its lines, shrunk by what it cooled. */
export function lengthOf({ layers }: Pick<Making, 'layers'>, truth: Pick<Truth, 'shrinks'>, axis: 'X' | 'Y' | 'Z'): number {
  if (axis === 'Z') return (layers.at(-1)?.z ?? 0) * (1 - truth.shrinks)
  const at = axis === 'X' ? xOfCell : yOfCell
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY]
  for (const { cells } of layers)
    for (const cell of cells) {
      low = Math.min(low, at(cell))
      high = Math.max(high, at(cell))
    }
  return Number.isFinite(low) ? (high - low) * (1 - truth.shrinks) : 0
}

/** Lines after which whoever runs a program may look after something else. */
const AT_ONCE = 400

/** Runs a whole program on a machine without a wire, some lines at a time. @throws RangeError where it waits for ever */
export function* runProgram(machine: Machine, lines: Iterable<string>): Generator<void> {
  const wait = (until: () => boolean): void => {
    for (let steps = 0; !until(); steps++) {
      if (steps > 2e6) throw new RangeError('The machine waits for something that does not come.')
      machine.advance(0.25)
    }
  }
  let taken = 0
  for (const line of lines) {
    const [word = '', ...rest] = line.replace(/;.*/, '').trim().split(/\s+/)
    if (word === '') continue
    wait(() => machine.isReady)
    machine.run(word.toUpperCase(), valuesOf(rest))
    if (++taken % AT_ONCE === 0) yield
  }
  wait(() => machine.isIdle)
}
