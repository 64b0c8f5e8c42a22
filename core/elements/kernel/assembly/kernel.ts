/**
 * The loops of the solver over cells and nodes, four numbers at a time. AssemblyScript: `npm run kernel` makes `../kernelBytes.ts` of it.
 *
 * All parameters that are no counts are places in the memory, in bytes. A node's movements are four numbers, of which the last means nothing; nodes
 * are named by the place of theirs in a vector of single precision, 16 bytes each. `../plainKernel.ts` does the same, slower.
 */

/** Bytes of four numbers of single precision. */
// @ts-expect-error: decorator
@inline
const ONE: usize = 16

/** Adds to `out` the forces that hold the cells' corners where they were moved to: to even and odd movements, through the blocks, and back. */
export function springs(cells: i32, nodes: usize, share: usize, kind: usize, coefficients: usize, moved: usize, out: usize): void {
  for (let c = 0; c < cells; c++) {
    const o0 = <usize>load<u32>(nodes)
    const o1 = <usize>load<u32>(nodes, 4)
    const o2 = <usize>load<u32>(nodes, 8)
    const o3 = <usize>load<u32>(nodes, 12)
    const o4 = <usize>load<u32>(nodes, 16)
    const o5 = <usize>load<u32>(nodes, 20)
    const o6 = <usize>load<u32>(nodes, 24)
    const o7 = <usize>load<u32>(nodes, 28)
    nodes += 32
    let a = v128.load(moved + o0)
    let b = v128.load(moved + o1)
    let ab = f32x4.add(b, a)
    let ba = f32x4.sub(b, a)
    a = v128.load(moved + o2)
    b = v128.load(moved + o3)
    let cd = f32x4.add(b, a)
    let dc = f32x4.sub(b, a)
    let s0 = f32x4.add(cd, ab)
    let s1 = f32x4.add(dc, ba)
    let s2 = f32x4.sub(cd, ab)
    let s3 = f32x4.sub(dc, ba)
    a = v128.load(moved + o4)
    b = v128.load(moved + o5)
    ab = f32x4.add(b, a)
    ba = f32x4.sub(b, a)
    a = v128.load(moved + o6)
    b = v128.load(moved + o7)
    cd = f32x4.add(b, a)
    dc = f32x4.sub(b, a)
    let s4 = f32x4.add(cd, ab)
    let s5 = f32x4.add(dc, ba)
    let s6 = f32x4.sub(cd, ab)
    let s7 = f32x4.sub(dc, ba)
    const full = f32x4.splat(load<f32>(share))
    share += 4
    const w0 = f32x4.mul(full, f32x4.add(s4, s0))
    const w1 = f32x4.mul(full, f32x4.add(s5, s1))
    const w2 = f32x4.mul(full, f32x4.add(s6, s2))
    const w3 = f32x4.mul(full, f32x4.add(s7, s3))
    const w4 = f32x4.mul(full, f32x4.sub(s4, s0))
    const w5 = f32x4.mul(full, f32x4.sub(s5, s1))
    const w6 = f32x4.mul(full, f32x4.sub(s6, s2))
    const w7 = f32x4.mul(full, f32x4.sub(s7, s3))
    const k = coefficients + ((<usize>load<u8>(kind)) << 9)
    kind += 1
    const t0 = block(k, w0, w3, w5, w6)
    const t1 = block(k + 64, w1, w2, w4, w7)
    const t2 = block(k + 128, w2, w1, w7, w4)
    const t3 = block(k + 192, w3, w0, w6, w5)
    const t4 = block(k + 256, w4, w7, w1, w2)
    const t5 = block(k + 320, w5, w6, w0, w3)
    const t6 = block(k + 384, w6, w5, w3, w0)
    const t7 = block(k + 448, w7, w4, w2, w1)
    ab = f32x4.sub(t0, t1)
    ba = f32x4.add(t0, t1)
    cd = f32x4.sub(t2, t3)
    dc = f32x4.add(t2, t3)
    s0 = f32x4.sub(ab, cd)
    s1 = f32x4.sub(ba, dc)
    s2 = f32x4.add(ab, cd)
    s3 = f32x4.add(ba, dc)
    ab = f32x4.sub(t4, t5)
    ba = f32x4.add(t4, t5)
    cd = f32x4.sub(t6, t7)
    dc = f32x4.add(t6, t7)
    s4 = f32x4.sub(ab, cd)
    s5 = f32x4.sub(ba, dc)
    s6 = f32x4.add(ab, cd)
    s7 = f32x4.add(ba, dc)
    addAt(out + o0, f32x4.sub(s0, s4))
    addAt(out + o1, f32x4.sub(s1, s5))
    addAt(out + o2, f32x4.sub(s2, s6))
    addAt(out + o3, f32x4.sub(s3, s7))
    addAt(out + o4, f32x4.add(s0, s4))
    addAt(out + o5, f32x4.add(s1, s5))
    addAt(out + o6, f32x4.add(s2, s6))
    addAt(out + o7, f32x4.add(s3, s7))
  }
}

/** A pattern's own movements and those of the three patterns that answer to it, times their coefficients. */
// @ts-expect-error: decorator
@inline
function block(k: usize, own: v128, third: v128, fifth: v128, sixth: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(v128.load(k), own), f32x4.mul(v128.load(k, ONE), v128.shuffle<f32>(third, third, 1, 0, 3, 2))),
    f32x4.add(
      f32x4.mul(v128.load(k, 2 * ONE), v128.shuffle<f32>(fifth, fifth, 2, 1, 0, 3)),
      f32x4.mul(v128.load(k, 3 * ONE), v128.shuffle<f32>(sixth, sixth, 0, 2, 1, 3)),
    ),
  )
}

// @ts-expect-error: decorator
@inline
function addAt(at: usize, by: v128): void {
  v128.store(at, f32x4.add(v128.load(at), by))
}

/** Room for one cell in double precision: eight patterns of four numbers, before and after the blocks. */
const W: usize = memory.data(256, 16)
const T: usize = memory.data(256, 16)

/** The same in double precision: first x and y, then z, by halves of a node. */
export function springsDouble(cells: i32, nodes: usize, share: usize, kind: usize, coefficients: usize, moved: usize, out: usize): void {
  for (let c = 0; c < cells; c++) {
    const full = <f64>load<f32>(share)
    share += 4
    patterns(nodes, moved, 0)
    patterns(nodes, moved, 16)
    const k = coefficients + ((<usize>load<u8>(kind)) << 10)
    kind += 1
    const scale = f64x2.splat(full)
    for (let p: usize = 0; p < 8; p++) {
      const w = W + (p << 5)
      const third = W + ((p ^ 3) << 5)
      const fifth = W + ((p ^ 5) << 5)
      const sixth = W + ((p ^ 6) << 5)
      const at = k + (p << 7)
      const swapped = v128.load(third)
      let xy = f64x2.mul(v128.load(at), v128.load(w))
      xy = f64x2.add(xy, f64x2.mul(v128.load(at, 32), v128.shuffle<f64>(swapped, swapped, 1, 0)))
      const zs = v128.shuffle<f64>(v128.load(fifth, 16), v128.load(sixth, 16), 0, 2)
      xy = f64x2.add(xy, f64x2.mul(f64x2.replace_lane(f64x2.splat(load<f64>(at, 64)), 1, load<f64>(at, 104)), zs))
      const z = load<f64>(at, 16) * load<f64>(w, 16) + load<f64>(at, 80) * load<f64>(fifth) + load<f64>(at, 112) * load<f64>(sixth, 8)
      v128.store(T + (p << 5), f64x2.mul(scale, xy))
      v128.store(T + (p << 5), f64x2.splat(full * z), 16)
    }
    corners(nodes, out, 0)
    corners(nodes, out, 16)
    nodes += 32
  }
}

// @ts-expect-error: decorator
@inline
function patterns(nodes: usize, moved: usize, half: usize): void {
  const from = moved + half
  let a = v128.load(from + ((<usize>load<u32>(nodes)) << 1))
  let b = v128.load(from + ((<usize>load<u32>(nodes, 4)) << 1))
  let ab = f64x2.add(b, a)
  let ba = f64x2.sub(b, a)
  a = v128.load(from + ((<usize>load<u32>(nodes, 8)) << 1))
  b = v128.load(from + ((<usize>load<u32>(nodes, 12)) << 1))
  let cd = f64x2.add(b, a)
  let dc = f64x2.sub(b, a)
  const s0 = f64x2.add(cd, ab)
  const s1 = f64x2.add(dc, ba)
  const s2 = f64x2.sub(cd, ab)
  const s3 = f64x2.sub(dc, ba)
  a = v128.load(from + ((<usize>load<u32>(nodes, 16)) << 1))
  b = v128.load(from + ((<usize>load<u32>(nodes, 20)) << 1))
  ab = f64x2.add(b, a)
  ba = f64x2.sub(b, a)
  a = v128.load(from + ((<usize>load<u32>(nodes, 24)) << 1))
  b = v128.load(from + ((<usize>load<u32>(nodes, 28)) << 1))
  cd = f64x2.add(b, a)
  dc = f64x2.sub(b, a)
  const s4 = f64x2.add(cd, ab)
  const s5 = f64x2.add(dc, ba)
  const s6 = f64x2.sub(cd, ab)
  const s7 = f64x2.sub(dc, ba)
  const to = W + half
  v128.store(to, f64x2.add(s4, s0))
  v128.store(to, f64x2.add(s5, s1), 32)
  v128.store(to, f64x2.add(s6, s2), 64)
  v128.store(to, f64x2.add(s7, s3), 96)
  v128.store(to, f64x2.sub(s4, s0), 128)
  v128.store(to, f64x2.sub(s5, s1), 160)
  v128.store(to, f64x2.sub(s6, s2), 192)
  v128.store(to, f64x2.sub(s7, s3), 224)
}

// @ts-expect-error: decorator
@inline
function corners(nodes: usize, out: usize, half: usize): void {
  const from = T + half
  const to = out + half
  let ab = f64x2.sub(v128.load(from), v128.load(from, 32))
  let ba = f64x2.add(v128.load(from), v128.load(from, 32))
  let cd = f64x2.sub(v128.load(from, 64), v128.load(from, 96))
  let dc = f64x2.add(v128.load(from, 64), v128.load(from, 96))
  const s0 = f64x2.sub(ab, cd)
  const s1 = f64x2.sub(ba, dc)
  const s2 = f64x2.add(ab, cd)
  const s3 = f64x2.add(ba, dc)
  ab = f64x2.sub(v128.load(from, 128), v128.load(from, 160))
  ba = f64x2.add(v128.load(from, 128), v128.load(from, 160))
  cd = f64x2.sub(v128.load(from, 192), v128.load(from, 224))
  dc = f64x2.add(v128.load(from, 192), v128.load(from, 224))
  const s4 = f64x2.sub(ab, cd)
  const s5 = f64x2.sub(ba, dc)
  const s6 = f64x2.add(ab, cd)
  const s7 = f64x2.add(ba, dc)
  plusDouble(to + ((<usize>load<u32>(nodes)) << 1), f64x2.sub(s0, s4))
  plusDouble(to + ((<usize>load<u32>(nodes, 4)) << 1), f64x2.sub(s1, s5))
  plusDouble(to + ((<usize>load<u32>(nodes, 8)) << 1), f64x2.sub(s2, s6))
  plusDouble(to + ((<usize>load<u32>(nodes, 12)) << 1), f64x2.sub(s3, s7))
  plusDouble(to + ((<usize>load<u32>(nodes, 16)) << 1), f64x2.add(s0, s4))
  plusDouble(to + ((<usize>load<u32>(nodes, 20)) << 1), f64x2.add(s1, s5))
  plusDouble(to + ((<usize>load<u32>(nodes, 24)) << 1), f64x2.add(s2, s6))
  plusDouble(to + ((<usize>load<u32>(nodes, 28)) << 1), f64x2.add(s3, s7))
}

// @ts-expect-error: decorator
@inline
function plusDouble(at: usize, by: v128): void {
  v128.store(at, f64x2.add(v128.load(at), by))
}

/** `out = a − b`, single precision. */
export function left(nodes: i32, a: usize, b: usize, out: usize): void {
  for (let end = a + ((<usize>nodes) << 4); a < end; a += ONE, b += ONE, out += ONE) v128.store(out, f32x4.sub(v128.load(a), v128.load(b)))
}

/** `step = keeps · step + takes · own · r`. Of `own`, three columns a node. */
export function step(nodes: i32, own: usize, r: usize, keeps: f32, takes: f32, step: usize): void {
  const kept = f32x4.splat(keeps)
  const taken = f32x4.splat(takes)
  for (let n = 0; n < nodes; n++) {
    let along = f32x4.mul(v128.load(own), v128.load32_splat(r))
    along = f32x4.add(along, f32x4.mul(v128.load(own, ONE), v128.load32_splat(r, 4)))
    along = f32x4.add(along, f32x4.mul(v128.load(own, 2 * ONE), v128.load32_splat(r, 8)))
    v128.store(step, f32x4.add(f32x4.mul(taken, along), f32x4.mul(kept, v128.load(step))))
    own += 3 * ONE
    r += ONE
    step += ONE
  }
}

/** `x += step`. */
export function plus(nodes: i32, step: usize, x: usize): void {
  for (let end = step + ((<usize>nodes) << 4); step < end; step += ONE, x += ONE) addAt(x, v128.load(step))
}

/** Adds an eighth of each node to each of its eight parents. */
export function restrict(nodes: i32, parents: usize, fine: usize, coarse: usize): void {
  const eighth = f32x4.splat(0.125)
  for (let n = 0; n < nodes; n++) {
    const own = f32x4.mul(eighth, v128.load(fine))
    fine += ONE
    for (let k = 0; k < 8; k++) {
      addAt(coarse + <usize>load<u32>(parents), own)
      parents += 4
    }
  }
}

/** Adds the mean of its eight parents to each node. */
export function prolong(nodes: i32, parents: usize, coarse: usize, fine: usize): void {
  const eighth = f32x4.splat(0.125)
  for (let n = 0; n < nodes; n++) {
    let sum = f32x4.add(v128.load(coarse + <usize>load<u32>(parents)), v128.load(coarse + <usize>load<u32>(parents, 4)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 8)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 12)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 16)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 20)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 24)))
    sum = f32x4.add(sum, v128.load(coarse + <usize>load<u32>(parents, 28)))
    parents += 32
    addAt(fine, f32x4.mul(eighth, sum))
    fine += ONE
  }
}

/** What is left at a coarse node: its forces less what it and its neighbours do. Of each neighbour's 3 × 3, column by column. */
// @ts-expect-error: decorator
@inline
function leftAt(from: usize, to: usize, near: usize, stencil: usize, x: usize, b: v128): v128 {
  let sum = b
  for (let k = from; k < to; k++) {
    const other = x + <usize>load<u32>(near + (k << 2))
    const s = stencil + 36 * k
    sum = f32x4.sub(sum, f32x4.mul(v128.load(s), v128.load32_splat(other)))
    sum = f32x4.sub(sum, f32x4.mul(v128.load(s, 12), v128.load32_splat(other, 4)))
    sum = f32x4.sub(sum, f32x4.mul(v128.load(s, 24), v128.load32_splat(other, 8)))
  }
  return sum
}

/** Each node goes to where its neighbours leave nothing of its forces (Gauss–Seidel by nodes), from the first to the last or back. */
// biome-ignore lint/complexity/useMaxParams: counts and places.
export function sweep(nodes: i32, rows: usize, near: usize, stencil: usize, inverse: usize, x: usize, b: usize, isBack: i32): void {
  for (let i = 0; i < nodes; i++) {
    const n = <usize>(isBack ? nodes - 1 - i : i)
    const row = rows + (n << 2)
    const at = n << 4
    const r = leftAt(<usize>load<u32>(row), <usize>load<u32>(row, 4), near, stencil, x, v128.load(b + at))
    const own = inverse + 48 * n
    let along = f32x4.mul(v128.load(own), f32x4.splat(f32x4.extract_lane(r, 0)))
    along = f32x4.add(along, f32x4.mul(v128.load(own, ONE), f32x4.splat(f32x4.extract_lane(r, 1))))
    along = f32x4.add(along, f32x4.mul(v128.load(own, 2 * ONE), f32x4.splat(f32x4.extract_lane(r, 2))))
    addAt(x + at, along)
  }
}

/** What is left at each node of a coarse grid. */
// biome-ignore lint/complexity/useMaxParams: counts and places.
export function residual(nodes: i32, rows: usize, near: usize, stencil: usize, x: usize, b: usize, out: usize): void {
  for (let n: usize = 0; n < <usize>nodes; n++) {
    const row = rows + (n << 2)
    const at = n << 4
    v128.store(out + at, leftAt(<usize>load<u32>(row), <usize>load<u32>(row, 4), near, stencil, x, v128.load(b + at)))
  }
}

/** From double precision to single. */
export function toSingle(nodes: i32, from: usize, to: usize): void {
  for (let n = 0; n < nodes; n++) {
    const low = f32x4.demote_f64x2_zero(v128.load(from))
    const high = f32x4.demote_f64x2_zero(v128.load(from, ONE))
    v128.store(to, v128.shuffle<f64>(low, high, 0, 2))
    from += 32
    to += ONE
  }
}

/** `p = z + keeps · p`, z in single precision. */
export function direction(nodes: i32, z: usize, keeps: f64, p: usize): void {
  const kept = f64x2.splat(keeps)
  for (let n = 0; n < nodes; n++) {
    const own = v128.load(z)
    v128.store(p, f64x2.add(f64x2.promote_low_f32x4(own), f64x2.mul(kept, v128.load(p))))
    v128.store(p, f64x2.add(f64x2.promote_low_f32x4(v128.shuffle<f64>(own, own, 1, 0)), f64x2.mul(kept, v128.load(p, ONE))), ONE)
    z += ONE
    p += 32
  }
}

/** Of double precision with double precision, the fourth numbers left out. */
export function dot(nodes: i32, a: usize, b: usize): f64 {
  let sum = f64x2.splat(0)
  let rest: f64 = 0
  for (let n = 0; n < nodes; n++) {
    sum = f64x2.add(sum, f64x2.mul(v128.load(a), v128.load(b)))
    rest += load<f64>(a, ONE) * load<f64>(b, ONE)
    a += 32
    b += 32
  }
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1) + rest
}

/** Of single precision with double precision. */
export function dotMixed(nodes: i32, a: usize, b: usize): f64 {
  let sum = f64x2.splat(0)
  let rest: f64 = 0
  for (let n = 0; n < nodes; n++) {
    sum = f64x2.add(sum, f64x2.mul(f64x2.promote_low_f32x4(v128.load64_zero(a)), v128.load(b)))
    rest += <f64>load<f32>(a, 8) * load<f64>(b, ONE)
    a += ONE
    b += 32
  }
  return f64x2.extract_lane(sum, 0) + f64x2.extract_lane(sum, 1) + rest
}

/** `x += factor · p`, double precision. */
export function add(nodes: i32, factor: f64, p: usize, x: usize): void {
  const by = f64x2.splat(factor)
  for (let end = p + ((<usize>nodes) << 5); p < end; p += ONE, x += ONE) v128.store(x, f64x2.add(v128.load(x), f64x2.mul(by, v128.load(p))))
}

/** `to += factor · from`, single precision, by fours. */
export function blend(fours: i32, factor: f32, from: usize, to: usize): void {
  const by = f32x4.splat(factor)
  for (let end = from + ((<usize>fours) << 4); from < end; from += ONE, to += ONE) addAt(to, f32x4.mul(by, v128.load(from)))
}

/** Adds 3 × 3 numbers, as they are or times a factor. */
// @ts-expect-error: decorator
@inline
function addNine(to: usize, from: usize, by: v128): void {
  addAt(to, f32x4.mul(by, v128.load(from)))
  addAt(to + ONE, f32x4.mul(by, v128.load(from, ONE)))
  store<f32>(to, load<f32>(to, 32) + f32x4.extract_lane(by, 0) * load<f32>(from, 32), 32)
}

/** Adds a cell's 64 blocks of 3 × 3 to the rows of its corners. */
export function spread(sum: usize, corners: usize, slots: usize, out: usize): void {
  const one = f32x4.splat(1)
  for (let n = 0; n < 8; n++) {
    const row = slots + 108 * <usize>load<u32>(corners + (n << 2))
    for (let m = 0; m < 8; m++) {
      const way = 13 + (m & 1) - (n & 1) + 3 * (((m >> 1) & 1) - ((n >> 1) & 1)) + 9 * ((m >> 2) - (n >> 2))
      addNine(out + 36 * <usize>load<u32>(row + (way << 2)), sum, one)
      sum += 36
    }
  }
}

/** What a node's neighbours are to the nodes of the grid above about it, twelve numbers each. */
const SEEN: usize = memory.data(1296, 16)

/** Rows of a grid above another, from those of the one below: of a node at (x, y, z) of it, every parent's. */
// biome-ignore lint/complexity/useMaxParams: counts and places.
export function coarser(
  nodes: i32,
  at: usize,
  nx: i32,
  ny: i32,
  rows: usize,
  ways: usize,
  stencil: usize,
  parents: usize,
  slots: usize,
  out: usize,
): void {
  for (let n = 0; n < nodes; n++, at += 4, rows += 4, parents += 32) {
    const place = load<i32>(at)
    const odd = ((place % nx) & 1) | ((((place / nx) % ny) & 1) << 1) | (((place / (nx * ny)) & 1) << 2)
    memory.fill(SEEN, 0, 1296)
    const last = <usize>load<u32>(rows, 4)
    for (let k = <usize>load<u32>(rows); k < last; k++) {
      const way = <i32>load<u8>(ways + k)
      const mx = (odd & 1) + (way % 3) - 1
      const my = ((odd >> 1) & 1) + ((way / 3) % 3) - 1
      const mz = (odd >> 2) + way / 9 - 1
      const near = 13 + (mx >> 1) + 3 * (my >> 1) + 9 * (mz >> 1)
      const other = (mx & 1) | ((my & 1) << 1) | ((mz & 1) << 2)
      const by = f32x4.splat(1 / <f32>(1 << popcnt(other)))
      for (let t = 0; t < 8; t++)
        if ((t & ~other) == 0) addNine(SEEN + 48 * <usize>(near + (t & 1) + 3 * ((t >> 1) & 1) + 9 * (t >> 2)), stencil + 36 * k, by)
    }
    const by = f32x4.splat(1 / <f32>(1 << popcnt(odd)))
    for (let own = 0; own < 8; own++) {
      if ((own & ~odd) != 0) continue
      const row = slots + 108 * <usize>(load<u32>(parents + (own << 2)) >> 4)
      const off = (own & 1) + 3 * ((own >> 1) & 1) + 9 * (own >> 2)
      for (let way = off; way < 27; way++) {
        const slot = load<i32>(row + ((way - off) << 2))
        if (slot >= 0) addNine(out + 36 * <usize>slot, SEEN + 48 * <usize>way, by)
      }
    }
  }
}
