import type { Pattern } from '../../patterns/fillRegion'

/**
 * Stiffness of sparse infill as a share of the solid's, for a share `density` of solid (0–1).
 *
 * In the plane both patterns are square cells: along their walls density/2, in shear density³/16, turned by the usual
 * transformation of an orthotropic sheet with Poisson's ratio taken as nought (Gibson & Ashby, Cellular Solids, 1997;
 * Wang & McDowell 2004; both quoted from memory). Along the layers' normal a grid is a prism: density. Lines that cross
 * from layer to layer touch only where they cross: density², semi-empirical.
 *
 * These hold for sparse cells. So that full density is solid, what the sparse formula lacks there is added with the sixth
 * power of the density, which is nothing where the formula holds; semi-empirical.
 */
export function infillModulusInPlane(density: number, angleToWalls: number, pattern: Pattern): number {
  if (pattern === 'topPropping') return 0
  return closeToSolid(density, (d) => inPlane[pattern](d, angleToWalls))
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
const inPlane: Readonly<Record<Exclude<Pattern, 'topPropping'>, (density: number, angle: number) => number>> = {
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

function squareCells(density: number, angle: number): number {
  const cos2 = Math.cos(angle) ** 2
  const sin2 = 1 - cos2
  const along = density / 2
  const shear = density ** 3 / 16
  return 1 / ((cos2 * cos2 + sin2 * sin2) / along + (cos2 * sin2) / shear)
}

function closeToSolid(density: number, sparse: (density: number) => number): number {
  if (density <= 0) return 0
  if (density >= 1) return 1
  return sparse(density) + (1 - sparse(1)) * density ** 6
}
