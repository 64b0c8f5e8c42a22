import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { Block } from '../slicing/blocks'
import type { Layers } from '../slicing/layers'
import type { Task } from '../work/work'
import { layWalls } from './layWalls'
import { type Inside, splitInside } from './splitInside'
import type { Walls } from './walls'

interface DivideInput {
  readonly layers: Layers
  readonly block: Block
  readonly settings: Settings
  readonly overrides: readonly Override[]
}

/** Walls, tops, bottoms, bridges and infill of a block of layers, one group a layer of it. */
export type Divided = Omit<Walls, 'inside'> & Inside

/** Divides a block of layers by comparing each with its neighbours. */
export const divideLayers: Task<DivideInput, Divided> = {
  name: 'divideLayers',
  run: ({ layers, block, settings, overrides }, { kernel, tick }) => {
    const scopes = new Scopes(settings, overrides)
    const steps = 2 * (block.to - block.from)
    const { inside, ...walls } = layWalls(layers, block, scopes, kernel, (done) => tick(done / steps))
    const split = splitInside(layers, block, inside, scopes, kernel, (done) => tick(0.5 + done / steps))
    return { ...walls, ...split }
  },
}
