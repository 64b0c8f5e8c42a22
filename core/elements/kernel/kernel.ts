import { kernelBytes } from './kernelBytes'
import { PlainKernel } from './plainKernel'

/** A place in a kernel's memory, bytes. */
export type Place = number

/** Cells with the nodes that they share, as the kernel has them. */
export interface CellPlaces {
  readonly count: number
  /** Eight nodes a cell, each as the place of its movements in a vector of single precision. */
  readonly nodes: Place
  /** Single precision. */
  readonly share: Place
  /** A byte a cell. */
  readonly kind: Place
  /** Of each kind, 4 × 4 numbers a pattern, in single and in double precision (see `coefficientsOf`). */
  readonly coefficients: Place
  readonly coefficientsDouble: Place
}

/** A coarse grid's equations, row by row. */
export interface RowPlaces {
  readonly nodes: number
  /** Where each node's neighbours begin, and the last end: numbers. */
  readonly rows: Place
  /** Each neighbour as the place of its movements in a vector. */
  readonly near: Place
  /** 3 × 3 for each neighbour, column by column. */
  readonly stencil: Place
  /** Inverse of each node's own, three columns of four. */
  readonly inverse: Place
  readonly x: Place
  readonly b: Place
  readonly r: Place
}

/** A coarse grid while the one above it is made. */
export interface BelowPlaces {
  readonly nodes: number
  /** Where each node stands in the grid, and how many stand along x and y. */
  readonly at: Place
  readonly along: readonly [x: number, y: number]
  readonly rows: Place
  /** Which way each neighbour lies, a byte. */
  readonly ways: Place
  readonly stencil: Place
  /** As in the grid above. */
  readonly parents: Place
}

/**
 * The loops of the solver over cells and nodes, on a memory of its own: vectors of a node's x, y, z and one number that means nothing, in single
 * precision unless it says otherwise.
 */
export interface Kernel {
  readonly buffer: ArrayBuffer
  /** `out += K · moved`. */
  springs(cells: CellPlaces, moved: Place, out: Place): void
  springsDouble(cells: CellPlaces, moved: Place, out: Place): void
  /** `out = a − b`. */
  left(nodes: number, a: Place, b: Place, out: Place): void
  /** `step = keeps · step + takes · own · r`, where `own` has three columns of four a node. */
  step(nodes: number, own: Place, r: Place, keeps: number, takes: number, step: Place): void
  /** `x += step`. */
  plus(nodes: number, step: Place, x: Place): void
  /** Adds an eighth of each node to each of its eight parents. */
  restrict(nodes: number, parents: Place, fine: Place, coarse: Place): void
  /** Adds the mean of its eight parents to each node. */
  prolong(nodes: number, parents: Place, coarse: Place, fine: Place): void
  /** Gauss–Seidel by nodes on `x`, from the first to the last or back. */
  sweep(rows: RowPlaces, isBack: boolean): void
  /** What is left of `b`, to `r`. */
  residual(rows: RowPlaces): void
  /** From double precision to single. */
  toSingle(nodes: number, from: Place, to: Place): void
  /** `p = z + keeps · p`, of which p is double. */
  direction(nodes: number, z: Place, keeps: number, p: Place): void
  /** Of doubles. */
  dot(nodes: number, a: Place, b: Place): number
  /** Of single and double. */
  dotMixed(nodes: number, a: Place, b: Place): number
  /** `x += factor · p`, doubles. */
  add(nodes: number, factor: number, p: Place, x: Place): void
  /** `to += factor · from`, so many fours of numbers. */
  blend(fours: number, factor: number, from: Place, to: Place): void
  /**
   * Adds a cell's 64 blocks of 3 × 3 to the rows of its corners.
   *
   * @param corners numbers of its nodes
   * @param slots place of a neighbour in `out`, by 27·node + way
   */
  spread(sum: Place, corners: Place, slots: Place, out: Place): void
  /** Adds the rows of a grid as the one above sees them to the rows of that. */
  coarser(below: BelowPlaces, slots: Place, out: Place): void
}

/** What is below is the kernel's own. */
export const FIRST_PLACE = 4096
const PAGE = 65536

/** Only so much of WebAssembly as is used; the core knows no platform's types. */
interface WebAssemblyLike {
  readonly Module: new (bytes: Uint8Array) => object
  readonly Memory: new (size: { initial: number; maximum: number }) => { readonly buffer: ArrayBuffer }
  readonly Instance: new (
    module: object,
    imports: object,
  ) => { readonly exports: { readonly [name: string]: (...numbers: number[]) => number } }
}

interface Platform {
  readonly WebAssembly?: WebAssemblyLike
  readonly atob: (text: string) => string
}

let compiled: object | undefined | null

/** Compiled once; null where this engine has no WebAssembly with vectors. */
function moduleOf({ WebAssembly: assembly, atob }: Platform): object | null {
  if (compiled !== undefined) return compiled
  try {
    compiled = assembly ? new assembly.Module(Uint8Array.from(atob(kernelBytes), (one) => one.charCodeAt(0))) : null
  } catch {
    compiled = null
  }
  return compiled
}

/**
 * A kernel with so much memory: WebAssembly with vectors, or the same in plain TypeScript where that is not to be had.
 *
 * @throws RangeError where there is not so much
 */
export function openKernel(bytes: number, isPlain = false): Kernel {
  const platform = globalThis as unknown as Platform
  const { WebAssembly: assembly } = platform
  const module = isPlain ? null : moduleOf(platform)
  if (!assembly || !module) return new PlainKernel(new ArrayBuffer(bytes))
  const pages = Math.ceil(bytes / PAGE)
  const memory = new assembly.Memory({ initial: pages, maximum: pages })
  const call = new assembly.Instance(module, { env: { memory } }).exports
  return {
    buffer: memory.buffer,
    springs: ({ count, nodes, share, kind, coefficients }, moved, out) =>
      void call.springs!(count, nodes, share, kind, coefficients, moved, out),
    springsDouble: ({ count, nodes, share, kind, coefficientsDouble }, moved, out) =>
      void call.springsDouble!(count, nodes, share, kind, coefficientsDouble, moved, out),
    left: (nodes, a, b, out) => void call.left!(nodes, a, b, out),
    step: (nodes, own, r, keeps, takes, step) => void call.step!(nodes, own, r, keeps, takes, step),
    plus: (nodes, step, x) => void call.plus!(nodes, step, x),
    restrict: (nodes, parents, fine, coarse) => void call.restrict!(nodes, parents, fine, coarse),
    prolong: (nodes, parents, coarse, fine) => void call.prolong!(nodes, parents, coarse, fine),
    sweep: ({ nodes, rows, near, stencil, inverse, x, b }, isBack) =>
      void call.sweep!(nodes, rows, near, stencil, inverse, x, b, isBack ? 1 : 0),
    residual: ({ nodes, rows, near, stencil, x, b, r }) => void call.residual!(nodes, rows, near, stencil, x, b, r),
    toSingle: (nodes, from, to) => void call.toSingle!(nodes, from, to),
    direction: (nodes, z, keeps, p) => void call.direction!(nodes, z, keeps, p),
    dot: (nodes, a, b) => call.dot!(nodes, a, b),
    dotMixed: (nodes, a, b) => call.dotMixed!(nodes, a, b),
    add: (nodes, factor, p, x) => void call.add!(nodes, factor, p, x),
    blend: (fours, factor, from, to) => void call.blend!(fours, factor, from, to),
    spread: (sum, corners, slots, out) => void call.spread!(sum, corners, slots, out),
    coarser: ({ nodes, at, along: [nx, ny], rows, ways, stencil, parents }, slots, out) =>
      void call.coarser!(nodes, at, nx, ny, rows, ways, stencil, parents, slots, out),
  }
}
