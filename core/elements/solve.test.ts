import { describe, expect, it } from 'vitest'
import { seeded } from '../units/seeded'
import { isotropic, orthotropic } from './elasticity'
import { failsAt } from './failure'
import { stressTeller } from './stress'
import { cellsOf, endShare, type Loaded, loaded, placeOf } from './testing/blocks'

type Three = readonly [number, number, number]
const all = [true, true, true] as const
const none = [false, false, false] as const
const nothing = [0, 0, 0] as const
const E = 2000

/** The middle of a cell, mm. */
function middleOf({ mesh: { counts, size, at } }: Loaded, cell: number): Three {
  const [nx, ny] = counts
  const own = at[cell]!
  return [((own % nx) + 0.5) * size[0], ((Math.floor(own / nx) % ny) + 0.5) * size[1], (Math.floor(own / (nx * ny)) + 0.5) * size[2]]
}

describe('a beam of bricks', () => {
  const [length, wide, high] = [60, 6, 6]
  const second = (wide * high ** 3) / 12
  const shear = (5 / 6) * (E / 2) * wide * high

  it('held at one end moves by F·L³/3EI and what shear adds (Timoshenko), within two hundredths at 1 mm', () => {
    const { work, iterations } = loaded(
      cellsOf([length, wide, high], [1, 1, 1]),
      isotropic(E, 0),
      ([x]) => (x === 0 ? all : none),
      ([x, y, z]) => (x === length ? [0, 0, endShare(y, 1, wide) * endShare(z, 1, high)] : nothing),
    )
    const wanted = length ** 3 / (3 * E * second) + length / shear
    expect(Math.abs(work / wanted - 1)).toBeLessThan(0.02)
    expect(iterations).toBeLessThan(15)
  })

  it('on two supports, pressed in the middle, moves by F·L³/48EI and its shear', () => {
    const { work } = loaded(
      cellsOf([length, wide, high], [1, 1, 1]),
      isotropic(E, 0),
      ([x, , z]) => (z > 0 ? none : x === 0 ? all : x === length ? [false, true, true] : none),
      ([x, y, z]) => (x === length / 2 && z === high ? [0, 0, -endShare(y, 1, wide)] : nothing),
    )
    const wanted = length ** 3 / (48 * E * second) + length / (4 * shear)
    // The dent under the load and over the supports is none of the beam's.
    expect(work / wanted).toBeGreaterThan(0.99)
    expect(work / wanted).toBeLessThan(1.04)
  })

  // MacNeal & Harder 1985, "A proposed standard set of problems to test finite element accuracy", straight beam of six elements; values from memory.
  it.each([
    ['pulled', [1, 0, 0], 3e-5, 0.02],
    ['bent in its plane', [0, 1, 0], 0.1081, 0.03],
    ['bent out of its plane', [0, 0, 1], 0.4321, 0.03],
  ] as const)('of six bricks, %s, reaches the standard value', (_, force, wanted, within) => {
    const { work } = loaded(
      cellsOf([6, 1, 1], [1, 0.2, 0.1]),
      isotropic(1e7, 0.3),
      ([x]) => (x === 0 ? all : none),
      ([x]) => (x > 5.9 ? [force[0] / 4, force[1] / 4, force[2] / 4] : nothing),
      1e-8,
    )
    expect(Math.abs(work / wanted - 1)).toBeLessThan(within)
  })
})

it('a C-shaped hook opens where the curved beam of Winkler says, at a grid of 1 mm and of half that', () => {
  // Mean radius 20, 6 across the bend and 8 wide, 50 MPa: its innermost fibre at 103.4 N (Winkler–Bach; any text on strength of materials).
  const [radius, thick, wide, limit] = [20, 6, 8, 50]
  const [inner, outer] = [radius - thick / 2, radius + thick / 2]
  const material = isotropic(E, 0.35)
  const failure = (step: number): number => {
    const side = 2 * outer + 2
    const middle = side / 2
    const counts = [Math.round(side / step), Math.round(side / step), Math.round(wide / step)] as const
    // Share of each cell by sixteen points, so that the rim is round.
    const points = [-0.375, -0.125, 0.125, 0.375].map((own) => own * step)
    const solid = (x: number, y: number): boolean => {
      const r = Math.hypot(x - middle, y - middle)
      return r >= inner && r <= outer
    }
    const shareAt = (x: number, y: number): number =>
      points.reduce((sum, dx) => sum + points.reduce((own, dy) => own + (solid(x + dx, y + dy) && x <= middle ? 1 : 0), 0), 0) / 16
    const cells = cellsOf(counts, [step, step, step], (x, y) => shareAt(x, y) >= 0.02)
    const shares = cells.share.map((_, i) => {
      const own = cells.at[i]!
      return shareAt(((own % counts[0]) + 0.5) * step, ((Math.floor(own / counts[0]) % counts[1]) + 0.5) * step)
    })
    // Half a ring: its lower end is held at the plane of its middle, its upper one is pulled away there.
    const isEnd = ([x, y]: Three, top: boolean): boolean =>
      Math.abs(x - middle) < step * 0.6 && (top ? y > middle + inner - step : y < middle - inner + step)
    const own = loaded(
      { ...cells, share: shares },
      material,
      (at) => (isEnd(at, false) ? all : none),
      (at) => (isEnd(at, true) ? [0, 1, 0] : nothing),
    )
    const total = own.forces.reduce((sum, one) => sum + one, 0)
    const tell = stressTeller(own.mesh, [material])
    const [ratios, volumes, out] = [new Float64Array(8 * shares.length), new Float64Array(8 * shares.length), new Float64Array(48)]
    for (const [cell, share] of shares.entries()) {
      tell(own.moved, cell, out)
      for (let p = 0; p < 8; p++) {
        const [x = 0, y = 0, z = 0, yz = 0, xz = 0, xy = 0] = out.subarray(6 * p, 6 * p + 6)
        const mises = 0.5 * ((x - y) ** 2 + (y - z) ** 2 + (z - x) ** 2) + 3 * (yz ** 2 + xz ** 2 + xy ** 2)
        ratios[8 * cell + p] = mises / limit ** 2 / total ** 2
        volumes[8 * cell + p] = share > 0.5 && middle - middleOf(own, cell)[0] > 2.5 ? (share * step ** 3) / 8 : 0
      }
    }
    return failsAt(ratios, volumes).factor
  }
  // The same stresses σ = M·(rn − r)/(A·e·r) + N/A, with M = F·R·sin φ and N = F·sin φ, and a handful of them over the limit.
  const area = thick * wide
  const neutral = thick / Math.log(outer / inner)
  const at = (r: number): number => (radius * (neutral - r)) / (area * (radius - neutral) * r) + 1 / area
  const [steps, ratios, volumes] = [120, [] as number[], [] as number[]]
  for (let i = 0; i < steps; i++)
    for (let j = 0; j < steps; j++) {
      const [r, phi] = [inner + (thick * (i + 0.5)) / steps, (Math.PI * (j + 0.5)) / steps]
      ratios.push(((Math.sin(phi) * at(r)) / limit) ** 2)
      volumes.push((wide * thick * r * Math.PI) / steps ** 2)
    }
  expect(limit / at(inner)).toBeCloseTo(103.4, 1)
  const wanted = failsAt(Float64Array.from(ratios), Float64Array.from(volumes)).factor
  for (const step of [1, 0.5]) expect(Math.abs(failure(step) / wanted - 1)).toBeLessThan(0.07)
})

it('a ring pressed together gives way as a thin ring does: δ = 0.149·F·R³/(E·I)', () => {
  // Timoshenko, Strength of Materials; from memory: (π/4 − 2/π)·F·R³/(E·I) across, for a ring that is thin against its radius.
  const [radius, thick, wide, step] = [20, 3, 4, 0.5]
  const [inner, outer] = [radius - thick / 2, radius + thick / 2]
  const middle = outer + 1
  const points = [-0.375, -0.125, 0.125, 0.375].map((own) => own * step)
  const shareAt = (x: number, y: number): number =>
    points.reduce(
      (sum, dx) =>
        sum +
        points.filter((dy) => {
          const r = Math.hypot(x + dx - middle, y + dy - middle)
          return r >= inner && r <= outer
        }).length,
      0,
    ) / 16
  const counts = [Math.round((2 * middle) / step), Math.round((2 * middle) / step), Math.round(wide / step)] as const
  const cells = cellsOf(counts, [step, step, step], (x, y) => shareAt(x, y) >= 0.02)
  const share = cells.share.map((_, i) => {
    const own = cells.at[i]!
    return shareAt(((own % counts[0]) + 0.5) * step, ((Math.floor(own / counts[0]) % counts[1]) + 0.5) * step)
  })
  // A quarter would do; of the whole the lowest generator is held, and the highest pressed.
  const isPole = ([x, y]: Three, top: boolean): boolean =>
    Math.abs(x - middle) < step * 0.6 && (top ? y > middle + inner : y < middle - inner)
  const own = loaded(
    { ...cells, share },
    isotropic(E, 0),
    (at) => (isPole(at, false) ? all : none),
    (at) => (isPole(at, true) ? [0, -1, 0] : nothing),
  )
  const force = -own.forces.reduce((sum, one) => sum + one, 0)
  const given = own.work / force
  const wanted = ((Math.PI / 4 - 2 / Math.PI) * force * radius ** 3) / (E * ((wide * thick ** 3) / 12))
  // It is stiffer by the poles, which are held and loaded over their whole thickness, and softer by shear.
  expect(given / wanted).toBeGreaterThan(0.9)
  expect(given / wanted).toBeLessThan(1.08)
})

describe('any solid', () => {
  const layered = orthotropic({ modulus: [2400, 2100, 1700], poisson: 0.35, shear: [600, 650, 800] })
  const random = seeded(5)
  /** Lumps of random shares about a core that joins them. */
  const lump = (seed: number) => {
    const own = seeded(seed)
    const cells = cellsOf([7, 6, 5], [1, 1, 1], (x, y) => own() < 0.75 || (Math.abs(x - 3.5) < 1.1 && Math.abs(y - 3) < 1.1))
    return { ...cells, share: cells.share.map(() => 0.2 + 0.8 * own()) }
  }
  const push = (seed: number) => {
    const own = seeded(seed)
    return ({ 2: z }: Three): Three => (z > 0 && own() < 0.2 ? [own() - 0.5, own() - 0.5, own() - 0.5] : nothing)
  }
  const hold = ([, , z]: Three) => (z === 0 ? all : none)

  it('moves under one load along another as much as the other way round (Maxwell–Betti)', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const [a, b] = [push(100 + seed), push(200 + seed)].map((force) => loaded(lump(seed), layered, hold, force, 1e-9)) as [Loaded, Loaded]
      const along = (of: Loaded, other: Loaded): number => of.moved.reduce((sum, one, i) => sum + one * other.forces[i]!, 0)
      expect(along(a, b) / along(b, a)).toBeCloseTo(1, 5)
    }
  })

  it('is never softer for more plastic, and no load moves it against itself', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const cells = lump(seed)
      const more = { ...cells, share: cells.share.map((share) => (random() < 0.3 ? Math.min(1, share + 0.3) : share)) }
      const force = (): ((at: Three) => Three) => push(300 + seed)
      const [less, stiff] = [loaded(cells, layered, hold, force(), 1e-8).work, loaded(more, layered, hold, force(), 1e-8).work]
      expect(stiff).toBeGreaterThan(0)
      expect(stiff).toBeLessThanOrEqual(less * (1 + 1e-7))
    }
  })

  it('moves where it is loaded within a thousandth of the exact solution with what the solver leaves by itself', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const [usual, exact] = [undefined, 1e-10].map((enough) => loaded(lump(seed), layered, hold, push(400 + seed), enough)) as [
        Loaded,
        Loaded,
      ]
      expect(usual.residual).toBeGreaterThan(exact.residual)
      expect(Math.abs(usual.work / exact.work - 1)).toBeLessThan(1e-3)
    }
  })

  it('comes out the same whatever the way its coarse grids are cut', () => {
    const of = (counts: Three): number =>
      loaded(
        cellsOf(counts, [1, 1, 1], (x, y, z) => x < 7 && y < 6 && z < 5),
        layered,
        hold,
        ([x, y, z]) => (z === 5 && x === 7 && y === 6 ? [1, 0.5, -1] : nothing),
        1e-9,
      ).work
    const [plain, wider] = [of([7, 6, 5]), of([16, 9, 8])]
    expect(wider / plain).toBeCloseTo(1, 6)
  })
})

it('knows where its nodes stand', () => {
  const { mesh } = loaded(
    cellsOf([2, 1, 1], [1, 2, 3]),
    isotropic(E, 0.3),
    ([x]) => (x === 0 ? all : none),
    ([x]) => [x, 0, 0],
  )
  expect(placeOf(mesh, mesh.nodeCount - 1)).toEqual([2, 2, 3])
})
