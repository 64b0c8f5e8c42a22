import type { FaultId } from '@sable/core/faults/faults'
import { seeded } from '@sable/core/units/seeded'

/** A stroke of a drawing, 72 by 56: thin ones are threads and hairs, faint ones what is only there to compare with. */
export interface Stroke {
  readonly d: string
  readonly as?: 'line' | 'thin' | 'faint' | 'solid'
}

type Point = readonly [x: number, y: number]

const through = (points: readonly Point[]): string => `M${points.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join('L')}`
const box = (x: number, y: number, w: number, h: number): string => `M${x} ${y}h${w}v${h}h${-w}z`
const bed: Stroke = { d: 'M4 51H68', as: 'faint' }
const dot = (x: number, y: number, r: number): string => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
const times = <T>(count: number, of: (i: number) => T): T[] => Array.from({ length: count }, (_, i) => of(i))

/** Each is drawn from its own seed, so that it is irregular and always the same. */
const draw: Readonly<Record<FaultId, (random: () => number) => readonly Stroke[]>> = {
  strings: (random) => [
    bed,
    { d: box(8, 14, 12, 37) },
    { d: box(52, 14, 12, 37) },
    ...times(7, (i): Stroke => ({ d: `M20 ${18 + 4 * i}Q36 ${22 + 4 * i + 6 * random()} 52 ${16 + 4 * i + 3 * random()}`, as: 'thin' })),
  ],
  softTips: (random) => [
    bed,
    { d: 'M20 51L33 14Q36 6 40 13Q37 17 42 19L52 51' },
    ...times(
      6,
      (i): Stroke => ({
        d: `M${32 + i} ${12 + 3 * i}q${-8 - 8 * random()} ${-3 + 6 * random()} ${-12 - 4 * random()} ${4 * random()}`,
        as: 'thin',
      }),
    ),
  ],
  gaps: (random) => [
    { d: box(10, 6, 52, 46), as: 'faint' },
    ...times(8, (i): Stroke => {
      const cut = 18 + 26 * random()
      return { d: `M12 ${10 + 5.4 * i}H${cut.toFixed(1)}M${(cut + 5 + 6 * random()).toFixed(1)} ${10 + 5.4 * i}H60` }
    }),
  ],
  splitBand: (random) => [
    bed,
    ...times(4, (i): Stroke => ({ d: `M14 ${48 - 4 * i}H58` })),
    ...times(
      3,
      (i): Stroke => ({ d: times(6, (k) => `M${14 + 7.5 * k + 2 * random()} ${31 - 4 * i}h${2 + 2 * random()}`).join(''), as: 'thin' }),
    ),
    ...times(4, (i): Stroke => ({ d: `M14 ${18 - 4 * i}H58` })),
  ],
  dullBands: () => [
    bed,
    { d: box(16, 5, 40, 46) },
    ...[12, 26, 38].flatMap((y, k) => times(10, (i): Stroke => ({ d: `M${17 + 4 * i} ${y + 4 + k}l3 ${-4 - k}`, as: 'thin' }))),
  ],
  waves: () => [
    { d: 'M14 50V12H66' },
    ...times(5, (i): Stroke => ({ d: `M${20 + 7 * i} 14v${Math.max(4, 26 - 5 * i)}`, as: i > 2 ? 'thin' : 'solid' })),
  ],
  droop: (random) => [
    bed,
    { d: 'M8 51V30L40 8H66V16H46' },
    ...times(6, (i): Stroke => ({ d: `M${44 - 6 * i} ${17 + 3.6 * i}q${-2 - random()} ${8 + 4 * random()} ${-6} ${4}`, as: 'thin' })),
  ],
  sag: (random) => [
    bed,
    { d: box(6, 18, 12, 33) },
    { d: box(54, 18, 12, 33) },
    { d: 'M6 12H66V18H6z', as: 'faint' },
    ...times(4, (i): Stroke => ({ d: `M18 ${18 + i}Q36 ${26 + 6 * i + 4 * random()} 54 ${18 + i}`, as: 'thin' })),
  ],
  openTop: (random) => [
    { d: 'M16 14H66L56 42H6z' },
    ...times(9, (i): Stroke => {
      const [x, y] = [20 + 12 * (i % 3) + 5 * random(), 19 + 7 * Math.floor(i / 3) + 3 * random()]
      return { d: `M${x.toFixed(1)} ${y.toFixed(1)}l4 -2l3 2l-3 3z`, as: 'solid' }
    }),
  ],
  blobs: (random) => [
    bed,
    { d: box(18, 6, 36, 45) },
    ...times(7, (i): Stroke => ({ d: dot(34 + 3 * random(), 11 + 6 * i, 1.4 + 1.2 * random()), as: 'solid' })),
  ],
  warped: () => [bed, { d: 'M8 34Q14 46 36 49Q58 46 64 34L64 24Q58 36 36 39Q14 36 8 24z' }, { d: 'M8 34V50M64 34V50', as: 'thin' }],
  loose: (random) => [
    bed,
    ...times(3, (i): Stroke => ({ d: `M${8 + 3 * i} ${44 - 8 * i}q10 ${-8 + 12 * random()} 20 0t20 ${-2 + 4 * random()}t14 -2` })),
  ],
  wideFoot: () => [bed, { d: 'M22 8H50V42Q52 46 60 47Q63 49 60 51H12Q9 49 12 47Q20 46 22 42z' }, { d: 'M22 42V51M50 42V51', as: 'faint' }],
  shifted: () => [bed, { d: box(14, 32, 34, 19) }, { d: box(24, 8, 34, 24) }, { d: 'M14 32V8M48 32V8', as: 'faint' }],
  brokenSupport: () => [bed, { d: 'M6 8H66V16H6z' }, { d: 'M30 51L31 36L35 39L38 34L40 51z' }, { d: 'M37 29L34 33L30 30L43 17L50 19z' }],
  feathered: (random) => [
    bed,
    {
      d: through([
        ...times(14, (i): Point => [32 - (i > 4 ? 0.5 * i * random() : 0), 51 - 3.4 * i]),
        ...times(14, (i): Point => [40 + (i < 9 ? 0.5 * (14 - i) * random() : 0), 6.8 + 3.4 * i]),
      ]),
    },
  ],
  clog: () => [{ d: 'M24 4H48V24L40 34H32L24 24z' }, { d: dot(36, 27, 4), as: 'solid' }, { d: 'M33 42h6M33 48h6', as: 'faint' }, bed],
  clicking: () => [
    {
      d: times(10, (i) => {
        const [a, b, c] = [i, i + 0.5, i + 1].map((t) => (2 * Math.PI * t) / 10)
        const at = (angle: number, r: number): string => `${(28 + r * Math.cos(angle)).toFixed(1)} ${(28 + r * Math.sin(angle)).toFixed(1)}`
        return `${i === 0 ? 'M' : 'L'}${at(a!, 15)}L${at(b!, 20)}L${at(c!, 15)}`
      }).join(''),
    },
    { d: 'M50 4V20l4 2l-4 3l4 3l-4 3l4 3l-4 2V52' },
  ],
  stiff: () => [
    bed,
    { d: 'M36 4V20M31 15L36 20L41 15' },
    { d: box(10, 24, 52, 10) },
    { d: 'M10 28Q36 48 62 28', as: 'faint' },
    { d: 'M14 34V51M58 34V51' },
  ],
  brittle: (random) => [
    bed,
    { d: `M16 51V34${times(8, (i) => `L${16 + 5 * (i + 1)} ${(33 + 1.5 * random()).toFixed(1)}`).join('')}V51z` },
    { d: `M20 22${times(8, (i) => `L${20 + 5 * (i + 1)} ${(25 - 1.5 * random() - 0.8 * i).toFixed(1)}`).join('')}V4L20 6z` },
  ],
  wrongSize: () => [
    { d: dot(36, 26, 18) },
    { d: dot(36, 26, 8) },
    { d: dot(36, 26, 11), as: 'faint' },
    { d: 'M18 50H54M18 47V53M54 47V53M14 50l4 0' },
  ],
  steps: () => [
    bed,
    { d: times(8, (i) => `${i === 0 ? 'M6 51' : ''}V${51 - 5.4 * (i + 1)}H${(6 + 7.5 * (i + 1) ** 0.98).toFixed(1)}`).join('') },
    { d: 'M6 51Q24 20 66 8', as: 'faint' },
  ],
}

/** Strokes of a fault's drawing. */
export function drawingOf(fault: FaultId): readonly Stroke[] {
  return draw[fault](seeded([...fault].reduce((sum, letter) => 31 * sum + letter.charCodeAt(0), 7) % 100_000))
}
