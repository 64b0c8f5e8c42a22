import { demoParts } from '@sable/demo/scenario'
import { beforeAll, describe, expect, it } from 'vitest'
import type { PolygonKernel } from '../geometry/polygon'
import type { Mesh } from '../mesh/mesh'
import { asModelled, place } from '../mesh/place'
import { predict } from '../pipeline/predict'
import type { SettingValues } from '../profile/settings'
import { testKernel } from '../testing/kernel'
import { layOut } from '../testing/layOut'
import { mushroom, table } from '../testing/paths'
import { setupOf } from '../testing/setups'
import { blockMesh, joined, meshOf, moved, partOf, solids } from '../testing/solids'

let kernel: PolygonKernel
beforeAll(async () => {
  kernel = await testKernel
})

const cubes = (): Mesh => joined(blockMesh(10, 10, 10), moved(blockMesh(8, 8, 10), 0, 0, 20))
const beside = (): Mesh => joined(blockMesh(10, 10, 10), moved(blockMesh(4, 5, 6), 30, 0, 5))
const afloatIn = async (mesh: Mesh, values: SettingValues = {}) => (await layOut(mesh, values)).regions.afloat
const stopsOf = (mesh: Mesh, printer = 'lugger', values: SettingValues = {}): readonly string[] =>
  predict(partOf('afloat', mesh), asModelled, setupOf(printer), values, { kernel })
    .checks.filter(({ severity, id }) => severity === 'stop' && id === 'begins-in-mid-air')
    .map(({ message }) => message)

describe('bodies that begin in mid-air', () => {
  it('are found with their height, area and how long they stay alone', async () => {
    const [above, ...none] = await afloatIn(cubes())
    expect(none).toEqual([])
    expect(above!.zMm).toBeCloseTo(20, 1)
    expect(above!.areaMm2).toBeCloseTo(64, 1)
    expect(above!.aloneMm).toBeCloseTo(10, 1)
    const [low] = await afloatIn(beside())
    expect(low).toMatchObject({ zMm: expect.closeTo(5, 0), areaMm2: expect.closeTo(20, 1) })
  })

  it('are a stop with that height on every kind of machine', () => {
    expect(stopsOf(cubes())).toEqual([expect.stringContaining('At z 20.0 mm')])
    expect(stopsOf(beside(), 'dory')).toEqual([expect.stringContaining('At z 5.0 mm')])
  })

  it('are alone until they meet what stands: a bar that hangs down from a bridge', async () => {
    const gate = joined(table(), moved(blockMesh(3, 3, 2.5), 0, 0, 1.5))
    const [hanging] = await afloatIn(gate)
    expect(hanging!.zMm).toBeCloseTo(1.5, 0)
    expect(hanging!.aloneMm).toBeCloseTo(2.5, 0)
  })

  it('are none where a support stands under them', async () => {
    expect(await afloatIn(cubes(), { supports: 'plain', supportFrom: 'everywhere' })).toEqual([])
    expect(stopsOf(beside(), 'lugger', { supports: 'plain' })).toEqual([])
  })

  it('are none in whole parts: overhangs, flares, bridges, all demo parts', async () => {
    const { Manifold } = await solids
    const flare = meshOf(Manifold.cylinder(10, 2, 14, 64))
    for (const mesh of [mushroom(), table(), flare, ...demoParts.map(({ make }) => place(make()))]) expect(await afloatIn(mesh)).toEqual([])
  })

  it('are none on a tilted belt, where every layer begins on the belt', () => {
    const lying = joined(blockMesh(10, 30, 10), moved(blockMesh(10, 30, 10), 20, 10, 0))
    expect(stopsOf(lying, 'towline')).toEqual([])
  })
})
