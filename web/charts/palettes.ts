import type { Limiter } from '@sable/core/motion/limiters'
import type { LaidFeature } from '@sable/core/toolpath/toolpath'
import { interpolateCividis, interpolateViridis } from 'd3-scale-chromatic'

export type Rgb = readonly [red: number, green: number, blue: number]

/** Paul Tol's light set, which stays apart for colour-blind eyes, and a brown for what is thrown away. */
const [blue, orange, yellow, pink, cyan, mint, pear, olive, grey, brown] = [
  '#77aadd',
  '#ee8866',
  '#eedd88',
  '#ffaabb',
  '#99ddff',
  '#44bb99',
  '#bbcc33',
  '#aaaa00',
  '#b9b1a8',
  '#8d7a66',
] as const

export const featureColours: Readonly<Record<LaidFeature, string>> = {
  outerWall: grey,
  innerWall: blue,
  thin: pink,
  topBottom: mint,
  bridge: pear,
  ironing: cyan,
  infill: olive,
  support: orange,
  supportTop: yellow,
  foot: brown,
}

export const limiterColours: Readonly<Record<Limiter, string>> = {
  asked: grey,
  firstLayer: cyan,
  override: pink,
  flow: orange,
  axis: olive,
  extruder: yellow,
  acceleration: blue,
  corner: mint,
  layerTime: pear,
}

/** Lines that are run without laying anything, and places where filament is drawn back or a travel is lifted. */
export const travelColour = '#b28cc9'
export const liftColour = '#e3c6f2'

export type ScaleName = 'cividis' | 'viridis'

const STEPS = 256
const tables = {
  cividis: Array.from({ length: STEPS }, (_, i) => rgbOf(interpolateCividis(i / (STEPS - 1)))),
  viridis: Array.from({ length: STEPS }, (_, i) => rgbOf(interpolateViridis(i / (STEPS - 1)))),
}

/** Colour of a share of a continuous scale; shares beyond its ends take the end's. */
export const scaleColour = (name: ScaleName, share: number): Rgb =>
  tables[name][Math.max(0, Math.min(STEPS - 1, Math.round(share * (STEPS - 1))))]!

/** A scale as a picture from left to right. */
export const scaleGradient = (name: ScaleName): string =>
  `linear-gradient(to right, ${Array.from({ length: 9 }, (_, i) => `rgb(${scaleColour(name, i / 8).join(' ')})`).join(', ')})`

/** "#77aadd" or "rgb(119, 170, 221)" */
export function rgbOf(colour: string): Rgb {
  const hex = /^#([\da-f]{2})([\da-f]{2})([\da-f]{2})$/i.exec(colour)
  const [r, g, b] = hex ? hex.slice(1).map((part) => Number.parseInt(part, 16)) : (colour.match(/[\d.]+/g) ?? []).map(Number)
  return [r ?? 0, g ?? 0, b ?? 0]
}
