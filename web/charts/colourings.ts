import { limiters } from '@sable/core/motion/limiters'
import { code, features, isLaid, laidFeatures } from '@sable/core/toolpath/toolpath'
import { inWords } from '@sable/core/units/format'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import type { Pieces } from '../solids/pieceList'
import { featureColours, liftColour, limiterColours, type Rgb, rgbOf, type ScaleName, scaleColour, travelColour } from './palettes'

/** What lines can be coloured by. */
export const colouringNames = ['feature', 'limiter', 'speed', 'meltLoad', 'gloss', 'overhang', 'order'] as const
export type ColouringName = (typeof colouringNames)[number]

export const colouringLabels: Readonly<Record<ColouringName, string>> = {
  feature: 'feature',
  limiter: 'what limits them',
  speed: 'real speed',
  meltLoad: 'melt load',
  gloss: 'gloss',
  overhang: 'overhang',
  order: 'order',
}

/** A key of the drawing: kinds by name, or a scale from low to high. */
export type Key =
  | { readonly kind: 'kinds'; readonly kinds: readonly { readonly id: number; readonly label: string; readonly colour: string }[] }
  | {
      readonly kind: 'scale'
      readonly scale: ScaleName
      readonly low: number
      readonly high: number
      readonly unit: string
      readonly digits?: number
    }

const OVERHANGS = ['lies on the layer below', 'a quarter over air', 'half over air', 'more over air'] as const
const asCss = (rgb: Rgb): string => `rgb(${rgb.join(' ')})`
const overhangColour = (kind: number): Rgb => scaleColour('viridis', [0.15, 0.45, 0.72, 1][kind]!)

/** The key of a colouring; its range holds for all that is compared. */
export function keyOf(by: ColouringName, all: readonly DrawnMoves[]): Key {
  switch (by) {
    case 'feature':
      return {
        kind: 'kinds',
        kinds: laidFeatures
          .filter((feature) => all.some((moves) => moves.feature.includes(code[feature])))
          .map((feature) => ({ id: code[feature], label: inWords(feature), colour: featureColours[feature] })),
      }
    case 'limiter':
      return {
        kind: 'kinds',
        kinds: limiters
          .map((limiter, id) => ({ id, label: limiter === 'asked' ? 'as asked' : inWords(limiter), colour: limiterColours[limiter] }))
          .filter(({ id }) => all.some((moves) => moves.limiter.includes(id))),
      }
    case 'overhang':
      return { kind: 'kinds', kinds: OVERHANGS.map((label, id) => ({ id, label, colour: asCss(overhangColour(id)) })) }
    case 'speed':
      return { kind: 'scale', scale: 'viridis', low: 0, high: highestOf(all, (moves, m) => moves.peak[m]!), unit: 'mm/s' }
    case 'meltLoad':
      return {
        kind: 'scale',
        scale: 'cividis',
        low: 0,
        high: Math.max(100, 100 * highestOf(all, (moves, m) => moves.meltLoad[m]!)),
        unit: '%',
      }
    case 'gloss':
      return { kind: 'scale', scale: 'cividis', low: 0, high: 100, unit: '%' }
    case 'order':
      return { kind: 'scale', scale: 'viridis', low: 0, high: 100, unit: '% of the layer' }
  }
}

function highestOf(all: readonly DrawnMoves[], of: (moves: DrawnMoves, m: number) => number): number {
  let highest = 0
  for (const moves of all)
    for (let m = 0; m < moves.feature.length; m++) if (isLaid(moves.feature[m]!) && of(moves, m) > highest) highest = of(moves, m)
  return highest || 1
}

/** Which kind a move is of, in the key of its colouring. */
function kindOf(by: ColouringName, { feature, limiter, air }: DrawnMoves, m: number): number {
  return by === 'feature' ? feature[m]! : by === 'limiter' ? limiter[m]! : air[m]! >> 6
}

/** The value of a move on the scale of its colouring; not a number where it has none. */
function valueOn(by: ColouringName, moves: DrawnMoves, m: number, done: number): number {
  switch (by) {
    case 'speed':
      return moves.peak[m]!
    case 'meltLoad':
      return 100 * moves.meltLoad[m]!
    case 'gloss':
      return 100 * moves.gloss[m]!
    default:
      return 100 * done
  }
}

const NOTHING: Rgb = [120, 112, 104]
const FAINT = 36

/**
 * Red, green, blue and opacity of every piece.
 *
 * @param only the kind that stands out, where one is chosen: the others are drawn faintly
 */
export function coloursOf(pieces: Pieces, moves: DrawnMoves, by: ColouringName, key: Key, only?: number): Uint8Array {
  const colours = new Uint8Array(4 * pieces.move.length)
  const kinds = new Map(key.kind === 'kinds' ? key.kinds.map(({ id, colour }) => [id, rgbOf(colour)]) : [])
  const [travel, lift] = [rgbOf(travelColour), rgbOf(liftColour)]
  for (let i = 0; i < pieces.move.length; i++) {
    const m = pieces.move[i]!
    let rgb: Rgb = NOTHING
    let opacity = 255
    if (!isLaid(moves.feature[m]!)) {
      // A lifted travel runs higher than what is laid before and after it.
      rgb = features[moves.feature[m]!] === 'travel' && moves.z[m + 1] !== moves.z[m] ? lift : travel
    } else if (key.kind === 'kinds') {
      const kind = kindOf(by, moves, m)
      rgb = kinds.get(kind) ?? NOTHING
      if (only !== undefined && kind !== only) opacity = FAINT
    } else {
      const value = valueOn(by, moves, m, i / Math.max(1, pieces.move.length - 1))
      if (!Number.isNaN(value)) rgb = scaleColour(key.scale, (value - key.low) / (key.high - key.low))
    }
    colours.set(rgb, 4 * i)
    colours[4 * i + 3] = opacity
  }
  return colours
}
