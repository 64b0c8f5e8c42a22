import { planBlock } from '../../motion/planMotion'
import { divideLayers } from '../../regions/divideLayers'
import { standAround } from '../../regions/findRegions'
import { sliceBlock } from '../../slicing/slice'
import { layBlock } from '../../toolpath/layBlock'
import { propTops } from '../../toolpath/layPaths'
import { travelFigures } from '../../toolpath/travelFigures'
import type { Task } from '../../work/work'
import * as figureTasks from '../figureTasks'

/** Every task by its name, so that a thread finds what another asks of it. */
export const tasks: ReadonlyMap<string, Task<never, unknown>> = new Map(
  [sliceBlock, divideLayers, standAround, propTops, layBlock, planBlock, travelFigures, ...Object.values(figureTasks)].map((task) => [
    task.name,
    task as Task<never, unknown>,
  ]),
)
