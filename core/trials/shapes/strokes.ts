import type { Solid, SolidKit } from '../solids/solidKernel'

/** Of a digit: width and height of its cell, and how thick its strokes are, mm. Two lines of a usual bore make a stroke. */
export const digit = { width: 2.8, height: 5, stroke: 0.9, gap: 1 } as const

/** Which of seven strokes a sign has: top, upper left, upper right, middle, lower left, lower right, bottom. */
const strokes: Readonly<Record<string, string>> = {
  '0': 'abcefg',
  '1': 'cf',
  '2': 'acdeg',
  '3': 'acdfg',
  '4': 'bcdf',
  '5': 'abdfg',
  '6': 'abdefg',
  '7': 'acf',
  '8': 'abcdefg',
  '9': 'abcdfg',
  '-': 'd',
  '.': '.',
}

const { width: W, height: H, stroke: S } = digit
/** Left, bottom, width and height of each stroke in its cell. */
const places: Readonly<Record<string, readonly [number, number, number, number]>> = {
  a: [0, H - S, W, S],
  b: [0, H / 2, S, H / 2],
  c: [W - S, H / 2, S, H / 2],
  d: [0, (H - S) / 2, W, S],
  e: [0, 0, S, H / 2],
  f: [W - S, 0, S, H / 2],
  g: [0, 0, W, S],
  '.': [0, 0, S, S],
}

const widthOf = (sign: string): number => (sign === '.' ? S : W)
const widthOfNumber = (text: string): number =>
  [...text].reduce((sum, sign) => sum + widthOf(sign), 0) + digit.gap * Math.max(0, text.length - 1)

/**
 * A number in straight strokes on a wall that faces −y: its middle at the origin, its foot on z = 0, standing out by `depth` mm
 * and reaching as far into the wall, narrowed where it is wider than its room. Nothing where there is no sign that it knows.
 */
export function raised(kit: SolidKit, text: string, depth: number, room = Infinity): Solid | undefined {
  const narrowed = Math.min(1, room / widthOfNumber(text))
  let left = (-widthOfNumber(text) / 2) * narrowed
  const parts: Solid[] = []
  for (const sign of text) {
    for (const stroke of strokes[sign] ?? '') {
      const [x, z, width, height] = places[stroke]!
      parts.push(kit.box(width * narrowed, 2 * depth, height).at(left + (x + width / 2) * narrowed, 0, z))
    }
    left += (widthOf(sign) + digit.gap) * narrowed
  }
  const [first, ...rest] = parts
  return first?.plus(...rest)
}
