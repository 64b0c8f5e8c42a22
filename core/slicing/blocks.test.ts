import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { groupArea } from '../geometry/contours'
import { planBlock, planMotion } from '../motion/planMotion'
import { divideLayers } from '../regions/divideLayers'
import { testKernel } from '../testing/kernel'
import { type LaidOut, layOut } from '../testing/layOut'
import { setupOf } from '../testing/setups'
import { meshOf, solids } from '../testing/solids'
import { layBlock } from '../toolpath/layBlock'
import { code, moveCount, type Toolpath } from '../toolpath/toolpath'
import type { Host } from '../work/work'
import { blocksOf } from './blocks'

it('blocks hold every layer once, in order', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 20_000 }), (count) => {
      const blocks = blocksOf(count)
      expect(blocks[0]!.from).toBe(0)
      expect(blocks.at(-1)!.to).toBe(count)
      for (const [i, { from, to }] of blocks.entries()) {
        expect(to).toBeGreaterThan(from)
        if (i > 0) expect(from).toBe(blocks[i - 1]!.to)
      }
    }),
  )
})

describe('a part laid in blocks', () => {
  let host: Host
  let laid: LaidOut
  let whole: Toolpath
  const all = () => ({ from: 0, to: laid.layers.top.length })

  // Leaning walls, a hole, a roof half-way up and two towers above it: tops and bottoms, bridges and travels in every block.
  beforeAll(async () => {
    const { Manifold } = await solids
    host = { kernel: await testKernel, tick: () => {} }
    const tower = (x: number) => Manifold.cylinder(14, 4, 2.5, 24).translate([x, 0, 12])
    const body = Manifold.cylinder(12, 8, 12, 48).subtract(Manifold.cylinder(9, 5, 5, 32).translate([0, 0, 1]))
    laid = await layOut(meshOf(body.add(tower(-6)).add(tower(6))), {
      layerHeight: 0.15,
      retractAtLayer: 'on',
      wipeLength: 1,
      coastLength: 0.2,
    })
    const { layers, regions, seams, settings } = laid
    whole = layBlock.run({ layers, regions, settings, overrides: [], seams, block: all() }, host)
    expect(blocksOf(all().to).length).toBeGreaterThan(3)
  })

  it('has the same walls, tops, bottoms and infill as one that is divided at once', () => {
    const { layers, regions, settings } = laid
    const once = divideLayers.run({ layers, block: all(), settings, overrides: [] }, host)
    for (let layer = 0; layer < all().to; layer++) {
      for (const member of ['topBottom', 'infill', 'bridges'] as const)
        expect(groupArea(regions[member], layer)).toBeCloseTo(groupArea(once[member], layer), 2)
      for (const [depth, walls] of once.walls.entries()) expect(groupArea(regions.walls[depth]!, layer)).toBe(groupArea(walls, layer))
    }
  })

  it('lays the same plastic in every layer', () => {
    const laidIn = ({ x, y, area, layerStart }: Toolpath, layer: number): number => {
      let volume = 0
      for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++)
        volume += area[m]! * Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
      return volume
    }
    // Coasting takes from whatever line comes last before a travel.
    for (let layer = 0; layer < all().to; layer++) expect(laidIn(laid.path, layer) / laidIn(whole, layer)).toBeCloseTo(1, 2)
  })

  it('goes from one block to the next as from one layer to another: pulled back, up, over and pushed forward', () => {
    const { feature, z, layerStart } = laid.path
    for (const { from } of blocksOf(all().to).slice(1)) {
      const way = [...feature.subarray(layerStart[from]!, layerStart[from]! + 12)].filter((kind) => kind < code.outerWall)
      expect(way).toContain(code.retract)
      expect(way.indexOf(code.pushBack)).toBeGreaterThan(way.indexOf(code.retract))
      expect(z[layerStart[from]!]).toBeCloseTo(laid.layers.top[from - 1]!, 9)
      expect(z[layerStart[from + 1]!]).toBeCloseTo(laid.layers.top[from]!, 9)
    }
    expect(moveCount(laid.path) / moveCount(whole)).toBeCloseTo(1, 1)
  })

  it('takes as long as one that is planned at once', () => {
    const { printer } = setupOf()
    const { path, settings } = laid
    const inBlocks = planMotion(path, () => settings, printer)
    const once = { ...inBlocks, layerTime: new Float64Array(all().to), layerScale: new Float64Array(all().to) }
    planBlock.run({ path, block: all(), settings, overrides: [], printer, into: once }, host)
    for (let layer = 0; layer < all().to; layer++) expect(inBlocks.layerTime[layer]! / once.layerTime[layer]!).toBeCloseTo(1, 4)
  })
})
