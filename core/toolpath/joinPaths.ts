import type { Scopes } from '../profile/overrides'
import type { Regions } from '../regions/findRegions'
import { isSpiral } from '../regions/spiral'
import type { Block } from '../slicing/blocks'
import type { Layers } from '../slicing/layers'
import { scopeOn } from '../slicing/zones'
import { sharedRoom } from '../units/shared'
import { moveCount, type Toolpath, ToolpathBuilder } from './toolpath'
import { Traveller } from './traveller'

/** Moves from one block to the next that room is made for; a way along a rim may take more. */
const MOST_JOINING = 256

/** Joins the paths of blocks of layers into one: from where a block ends to where the next begins the nozzle travels as between any two lines. */
export function joinPaths(
  paths: readonly Toolpath[],
  blocks: readonly Block[],
  layers: Layers,
  { walls: [lane] }: Regions,
  scopes: Scopes,
): Toolpath {
  const out = new ToolpathBuilder(
    paths.reduce((sum, path) => sum + moveCount(path) + MOST_JOINING, 0),
    sharedRoom,
  )
  const traveller = new Traveller(out)
  for (const [i, path] of paths.entries()) {
    const { from } = blocks[i]!
    out.startLayer()
    if (i > 0 && moveCount(path) > 0) {
      out.scopeNow = scopeOn(layers, from, scopes)
      const settings = scopes.settingsOf(out.scopeNow)
      if (!isSpiral(from, scopes.settings)) traveller.rise(layers.top[from]!, settings)
      traveller.enter(layers.outlines, lane, from)
      traveller.goTo(path.x[0]!, path.y[0]!, settings)
    }
    out.append(
      path,
      path.sets.map((set) => scopes.scopeOf(set)),
    )
  }
  return out.finish(scopes.sets)
}
