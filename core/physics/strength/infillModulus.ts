import type { Pattern } from '../../patterns/fillRegion'

/**
 * Stiffness of sparse infill as a share of the solid's, for a share `density` of solid (0–1).
 *
 * In the plane both patterns are square cells: along their walls density/2, in shear density³/16, turned by the usual
 * transformation of an orthotropic sheet with Poisson's ratio taken as nought (Gibson & Ashby, Cellular Solids, 1997;
 * Wang & McDowell 2004; both quoted from memory). Along the layers' normal a grid is a prism: density. Lines that cross
 * from layer to layer touch only where they cross: density², semi-empirical.
 *
 * Square cells that lie aslant give way by folding, and so sideways; tops, bottoms and walls around them that do not follow hold them
 * up: with the stiffnesses C of the turned cells, `C₁₁ − C₁₂²/(C₂₂ + S)`, S what those add across the load, as a share of the
 * solid. Nothing of S is the free cell, much of it the cell that can only be pressed along its lines.
 *
 * These hold for sparse cells. So that full density is solid, what the sparse formula lacks there is added with the sixth
 * power of the density, which is nothing where the formula holds; semi-empirical.
 */
export function infillModulusInPlane(density: number, angleToWalls: number, pattern: Pattern, confined = 0): number {
  if (pattern === 'topPropping') return 0
  return closeToSolid(density, (d) => inPlane[pattern](d, angleToWalls, confined))
}

export function infillModulusUpright(density: number, pattern: Pattern): number {
  if (pattern === 'topPropping') return 0
  return closeToSolid(density, upright[pattern])
}

/**
 * Triangles carry d/3 in every direction of the plane, hexagons 1.5·d³ (Gibson & Ashby). Cubic cells stand on a corner and
 * meet every direction alike: d/3. A gyroid lies between d/3 and d²; their mean is taken, semi-empirical. Loops that
 * follow the rim carry like square cells in which one family is missing, semi-empirical.
 */
const inPlane: Readonly<Record<Exclude<Pattern, 'topPropping'>, (density: number, angle: number, confined: number) => number>> = {
  lines: squareCells,
  grid: squareCells,
  triangles: (d) => d / 3,
  hexagons: (d) => 1.5 * d ** 3,
  cubic: (d) => d / 3,
  gyroid: betweenBounds,
  concentric: (d) => d / 4,
}

const upright: Readonly<Record<Exclude<Pattern, 'topPropping'>, (density: number) => number>> = {
  lines: (d) => d * d,
  grid: (d) => d,
  triangles: (d) => d,
  hexagons: (d) => d,
  cubic: (d) => d / 3,
  gyroid: betweenBounds,
  concentric: (d) => d,
}

function betweenBounds(density: number): number {
  return (density / 3 + density * density) / 2
}

function squareCells(density: number, angle: number, confined: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const along = density / 2
  const shear = density ** 3 / 16
  // Strains of the load's own frame, with and without what holds the sheet sideways: stiffness turned by the usual rule.
  const c11 = along * (c ** 4 + s ** 4) + 4 * shear * (c * s) ** 2
  const c12 = 2 * along * (c * s) ** 2 - 4 * shear * (c * s) ** 2
  const c16 = (along - 2 * shear) * c * s * (c * c - s * s)
  // What holds the sheet sideways also keeps it from shearing, by E/2(1 + ν) with a third for Poisson's ratio.
  const c66 = 2 * along * (c * s) ** 2 + shear * (c * c - s * s) ** 2 + confined / 2.7
  // What the shear strain takes is let go first; it enters both sides with opposite signs.
  const [k11, k22, k12] = [c11 - c16 ** 2 / c66, c11 - c16 ** 2 / c66, c12 + c16 ** 2 / c66]
  return k11 - k12 ** 2 / (k22 + confined)
}

function closeToSolid(density: number, sparse: (density: number) => number): number {
  if (density <= 0) return 0
  if (density >= 1) return 1
  return sparse(density) + (1 - sparse(1)) * density ** 6
}
