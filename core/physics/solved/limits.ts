import { type Elasticity, orthotropic } from '../../elements/elasticity'
import { POISSON } from '../strength/thinWalls'
import { KINDS } from './voxels'

/** What plastic bears and how far it gives way, MPa; what lines bear across themselves, and in shear, as shares. */
export interface Plastic {
  readonly modulus: number
  readonly inLayer: number
  readonly acrossLines: number
  readonly shear: number
  /** Standard deviations of the logarithms of what lines bear, and of what layers do. */
  readonly spreads: { readonly lines: number; readonly layers: number }
  /** Share of the strength within layers that there is between them, at a height. */
  readonly bondAt: (z: number) => number
}

/**
 * Stiffness of each kind of cell: along lines the material's own, across them as much less as they bear less there, upright halfway between. Assumed,
 * as the share itself is.
 */
export function elasticities({ modulus, acrossLines }: Pick<Plastic, 'modulus' | 'acrossLines'>): Elasticity[] {
  const along = (share: number): number => modulus * (acrossLines + (1 - acrossLines) * share)
  const upright = along(0.5)
  const shear = (a: number, b: number): number => Math.sqrt(a * b) / (2 * (1 + POISSON))
  return Array.from({ length: KINDS }, (_, kind) => {
    const share = kind / (KINDS - 1)
    const [ex, ey] = [along(share), along(1 - share)]
    return orthotropic({
      modulus: [ex, ey, upright],
      poisson: POISSON,
      shear: [shear(ey, upright), shear(ex, upright), shear(ex, ey)],
    })
  })
}

/**
 * How far stresses are to what a cell's plastic bears; it grows with the square of the load, and at 1 it fails.
 *
 * Tsai–Hill within the layers (Azzi & Tsai 1965, from memory) in the directions in which the lines run there; between layers what pulls them apart and
 * shears them, by the bond of the layer. Pressed together they do not part.
 */
export class Judge {
  /** Of what was judged last. */
  lines = 0
  layers = 0
  // The lines' main direction, twice its angle; what they bear along and across it; what holds layers together. All squared.
  private c2 = 1
  private s2 = 0
  private along = 1
  private across = 1
  private sheared = 1
  private between = 1

  constructor(private readonly plastic: Plastic) {}

  /**
   * Turns to a cell.
   *
   * @param cos2, sinCos means of the lines' directions
   * @param z mm
   */
  turnTo(cos2: number, sinCos: number, z: number): void {
    const { inLayer, acrossLines, shear, bondAt } = this.plastic
    const p = 2 * cos2 - 1
    const q = 2 * sinCos
    // How much the lines agree on a direction.
    const agree = Math.min(1, Math.sqrt(p * p + q * q))
    this.c2 = agree > 1e-6 ? p / agree : 1
    this.s2 = agree > 1e-6 ? q / agree : 0
    const x = inLayer * (acrossLines + ((1 - acrossLines) * (1 + agree)) / 2)
    const y = inLayer * (acrossLines + ((1 - acrossLines) * (1 - agree)) / 2)
    this.along = 1 / (x * x)
    this.across = 1 / (y * y)
    this.sheared = 1 / (shear * shear * x * y)
    this.between = 1 / (inLayer * bondAt(z)) ** 2
  }

  /** Stresses in MPa. */
  ratio(sx: number, sy: number, sz: number, yz: number, xz: number, xy: number): number {
    this.lines = this.withinLayers(sx, sy, xy)
    const { shear, inLayer } = this.plastic
    const apart = sz > 0 ? sz * sz * this.between : (sz * sz) / (inLayer * inLayer)
    this.layers = apart + ((yz * yz + xz * xz) / (shear * shear)) * this.between
    return this.lines + this.layers
  }

  /** Of a mix of two, six stresses each from `k` on. */
  ratioOf(s: Float64Array, r: Float64Array, k: number, a: number, b: number): number {
    return this.ratio(
      a * s[k]! + b * r[k]!,
      a * s[k + 1]! + b * r[k + 1]!,
      a * s[k + 2]! + b * r[k + 2]!,
      a * s[k + 3]! + b * r[k + 3]!,
      a * s[k + 4]! + b * r[k + 4]!,
      a * s[k + 5]! + b * r[k + 5]!,
    )
  }

  /** At its worst with either sign: whether layers are pulled or pressed. */
  worst(sx: number, sy: number, sz: number, yz: number, xz: number, xy: number): number {
    const { shear, inLayer } = this.plastic
    const pulled = sz * sz * Math.max(this.between, 1 / (inLayer * inLayer))
    return this.withinLayers(sx, sy, xy) + pulled + ((yz * yz + xz * xz) / (shear * shear)) * this.between
  }

  private withinLayers(sx: number, sy: number, xy: number): number {
    const mean = (sx + sy) / 2
    const half = (sx - sy) / 2
    const turned = half * this.c2 + xy * this.s2
    const along = mean + turned
    const across = mean - turned
    const sheared = xy * this.c2 - half * this.s2
    return along * (along - across) * this.along + across * across * this.across + sheared * sheared * this.sheared
  }
}
