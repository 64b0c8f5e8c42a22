import { failsAt, HANDFUL } from '../../elements/failure'
import { POINTS, stressTeller } from '../../elements/stress'
import { InputError } from '../../units/errors'
import { nodePlace } from './body'
import { elasticities, Judge, type Plastic } from './limits'
import type { Structure } from './structure'
import { middleOf, type Three } from './voxels'

/** Where a structure fails first, and under how many times its loads. */
export interface Weakest {
  /** The loads times this. */
  readonly factor: number
  readonly at: Three
  /** Lines break, layers part, or all of it gives way sideways. */
  readonly by: 'lines' | 'layers' | 'buckling'
  /** Shares of the case's loads in the direction that it bears least in. */
  readonly mix: readonly [number, number]
}

/** Cells that are emptier are not judged: what is in them is told by their neighbours. */
const JUDGED_FROM = 0.5
/** Directions between two loads that are tried. */
const DIRECTIONS = 12
/** Points that hold so many handfuls are looked at first. */
const LOOKED_AT = 8

/** @throws InputError where everything solid lies beside where it is held or loaded */
export function weakestOf(structure: Structure, plastic: Plastic): Weakest {
  const broken = brokenBy(structure, plastic)
  const { buckling, mesh, voxels } = structure
  if (!buckling || buckling.factor >= broken.factor) return broken
  const { shape } = buckling
  const size = (node: number): number => Math.hypot(shape[3 * node]!, shape[3 * node + 1]!, shape[3 * node + 2]!)
  let most = 0
  for (let node = 0; node < mesh.nodeCount; node++) if (size(node) > size(most)) most = node
  return { factor: buckling.factor, at: nodePlace(mesh, voxels.origin, most), by: 'buckling', mix: [1, 0] }
}

function brokenBy(structure: Structure, plastic: Plastic): Weakest {
  const { kept, moved, voxels, mesh } = structure
  const turns = moved.length === 1 ? [0] : Array.from({ length: DIRECTIONS }, (_, i) => (Math.PI * i) / DIRECTIONS)
  const tell = stressTeller(mesh, elasticities(plastic))
  const judge = new Judge(plastic)
  const turnTo = (c: number): void => judge.turnTo(voxels.cos2[kept[c]!]!, voxels.sinCos[kept[c]!]!, middleOf(voxels, kept[c]!)[2])
  const volumes = judgedVolumes(structure)
  const [s, r] = [new Float64Array(6 * POINTS), new Float64Array(6 * POINTS)]
  // Under any mix of two loads no point is further to its limit than under both at their worst together.
  const bounds = new Float64Array(POINTS * kept.length)
  for (let c = 0; c < kept.length; c++) {
    if (volumes[POINTS * c] === 0) continue
    turnTo(c)
    for (const own of moved) {
      tell(own, c, s)
      for (let p = 0, k = 0; p < POINTS; p++, k += 6)
        bounds[POINTS * c + p]! += judge.worst(s[k]!, s[k + 1]!, s[k + 2]!, s[k + 3]!, s[k + 4]!, s[k + 5]!)
    }
  }
  let level = 0
  for (let i = 0; i < bounds.length; i++) if (bounds[i]! > level) level = bounds[i]!
  for (let cut = cutOf(bounds, volumes, level, LOOKED_AT * HANDFUL); ; cut = cut < 1e-9 * level ? 0 : cut / 4) {
    const points: number[] = []
    for (let i = 0; i < bounds.length; i++) if (volumes[i]! > 0 && bounds[i]! >= cut) points.push(i)
    if (points.length === 0) throw nothingJudged()
    const looked = Float64Array.from(points, (i) => volumes[i]!)
    const ratios = turns.map(() => new Float64Array(points.length))
    let before = -1
    for (const [i, point] of points.entries()) {
      const cell = Math.floor(point / POINTS)
      if (cell !== before) {
        turnTo(cell)
        tell(moved[0]!, cell, s)
        if (moved[1]) tell(moved[1], cell, r)
        before = cell
      }
      const k = 6 * (point % POINTS)
      for (const [t, turn] of turns.entries()) ratios[t]![i] = judge.ratioOf(s, r, k, Math.cos(turn), Math.sin(turn))
    }
    const found = ratios.map((all) => failsAt(all, looked))
    // What was not looked at is nowhere worse than what decides.
    if (cut > 0 && found.some(({ factor }) => 1 / factor ** 2 < cut)) continue
    const best = found.reduce((least, { factor }, t) => (factor < found[least]!.factor ? t : least), 0)
    const { factor, point } = found[best]!
    const mix = [Math.cos(turns[best]!), Math.sin(turns[best]!)] as const
    const cell = Math.floor(points[point]! / POINTS)
    turnTo(cell)
    tell(moved[0]!, cell, s)
    if (moved[1]) tell(moved[1], cell, r)
    judge.ratioOf(s, r, 6 * (points[point]! % POINTS), ...mix)
    return { factor, at: middleOf(voxels, kept[cell]!), by: judge.layers > judge.lines ? 'layers' : 'lines', mix }
  }
}

const nothingJudged = (): InputError =>
  new InputError('nothing-judged', 'Everything that is solid lies beside where it is held or loaded.', '', 'Hold and load less of it.')

/** About the bound above which so much plastic lies. */
function cutOf(bounds: Float64Array, volumes: Float64Array, level: number, volume: number): number {
  for (let cut = level / 2; cut > 1e-9 * level; cut /= 2) {
    let over = 0
    for (let i = 0; i < bounds.length; i++) if (bounds[i]! >= cut) over += volumes[i]!
    if (over >= volume) return cut
  }
  return 0
}

/** Plastic at each point of each cell, mm³; nothing where it is not judged. */
function judgedVolumes({ kept, isGripped, mesh: { share, size } }: Structure): Float64Array {
  const whole = (size[0] * size[1] * size[2]) / POINTS
  const volumes = new Float64Array(POINTS * kept.length)
  for (let c = 0; c < kept.length; c++)
    if (share[c]! > JUDGED_FROM && isGripped[c] === 0) volumes.fill(whole * share[c]!, POINTS * c, POINTS * c + POINTS)
  return volumes
}
