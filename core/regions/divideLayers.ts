import { type Exception, Scopes } from '../profile/exceptions'
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
  readonly exceptions: readonly Exception[]
}

/** Walls, skins, bridges and infill of a block of layers, one group a layer of it. */
export type Divided = Omit<Walls, 'inside'> & Inside

/** Divides a block of layers by comparing each with its neighbours. */
export const divideLayers: Task<DivideInput, Divided> = {
  name: 'divideLayers',
  run: ({ layers, block, settings, exceptions }, { kernel, tick }) => {
    const scopes = new Scopes(settings, exceptions)
    const steps = 2 * (block.to - block.from)
    const { inside, ...walls } = layWalls(layers, block, scopes, kernel, (done) => tick(done / steps))
    const split = splitInside(layers, block, inside, scopes, kernel, (done) => tick(0.5 + done / steps))
    return { ...walls, ...split }
  },
}
