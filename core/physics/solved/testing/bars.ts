import { code, type Toolpath, ToolpathBuilder } from '../../../toolpath/toolpath'
import type { Plastic } from '../limits'

/** Of a line, mm. */
const [HEIGHT, WIDTH] = [0.2, 0.4]

/** A bar of lines side by side, all along x or all along y, or by turns; turned about the upright axis as a whole. */
export function bar([length, wide, high]: readonly [number, number, number], way: (layer: number) => 'x' | 'y', turnDeg = 0): Toolpath {
  const [c, n] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)]
  const to = (x: number, y: number): [number, number] => [c * x - n * y, n * x + c * y]
  const builder = new ToolpathBuilder()
  builder.startAt(0, 0, 0)
  const layers = Math.round(high / HEIGHT)
  for (let layer = 0; layer < layers; layer++) {
    builder.startLayer()
    builder.rise((layer + 1) * HEIGHT)
    const along = way(layer) === 'x'
    const count = Math.round((along ? wide : length) / WIDTH)
    for (let i = 0; i < count; i++) {
      const at = (i + 0.5) * WIDTH
      if (along) {
        builder.moveTo(...to(0, at))
        builder.layTo(...to(length, at), code.topBottom, WIDTH * HEIGHT, WIDTH, 0)
      } else {
        builder.moveTo(...to(at, 0))
        builder.layTo(...to(at, wide), code.topBottom, WIDTH * HEIGHT, WIDTH, 0)
      }
    }
  }
  return builder.finish()
}

/** Lines bear seven tenths across themselves, layers half between them, MPa. */
export const plastic: Plastic = {
  modulus: 2400,
  inLayer: 50,
  acrossLines: 0.7,
  shear: 1 / Math.sqrt(3),
  spreads: { lines: 0.1, layers: 0.2 },
  bondAt: () => 0.5,
}
