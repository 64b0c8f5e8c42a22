import type { Grid } from './grids'

/** A lower triangle, row by row in a square. */
export interface Cholesky {
  readonly n: number
  readonly l: Float64Array
}

/** Of a positive matrix; where it is hardly so, a movement that nothing resists, it is held. */
export function factor({ nodeCount, rows, near }: Grid, stencil: Float32Array): Cholesky {
  const n = 3 * nodeCount
  const l = new Float64Array(n * n)
  for (let node = 0; node < nodeCount; node++)
    for (let k = rows[node]!; k < rows[node + 1]!; k++)
      for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) l[n * (3 * node + i) + 3 * near[k]! + j] = stencil[9 * k + 3 * j + i]!
  for (let j = 0; j < n; j++) {
    const whole = l[n * j + j]!
    let pivot = whole
    for (let k = 0; k < j; k++) pivot -= l[n * j + k]! ** 2
    // Of what nothing moves the whole is nothing too.
    const root = Math.sqrt(pivot > 1e-6 * whole ? pivot : whole > 0 ? whole : 1)
    l[n * j + j] = root
    for (let i = j + 1; i < n; i++) {
      let sum = l[n * i + j]!
      for (let k = 0; k < j; k++) sum -= l[n * i + k]! * l[n * j + k]!
      l[n * i + j] = sum / root
    }
  }
  return { n, l }
}

/**
 * @param b forces, four numbers a node of which the last means nothing
 * @param x movements, alike
 */
export function solveBottom({ n, l }: Cholesky, b: Float32Array, x: Float32Array): void {
  const y = new Float64Array(n)
  for (let i = 0; i < n; i++) {
    let sum: number = b[4 * Math.floor(i / 3) + (i % 3)]!
    for (let k = 0; k < i; k++) sum -= l[n * i + k]! * y[k]!
    y[i] = sum / l[n * i + i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = y[i]!
    for (let k = i + 1; k < n; k++) sum -= l[n * k + i]! * y[k]!
    y[i] = sum / l[n * i + i]!
    x[4 * Math.floor(i / 3) + (i % 3)] = y[i]!
  }
}
