import { type Contours, joinContours } from '../geometry/contours'
import type { PolygonKernel } from '../geometry/polygon'
import { joinStrands } from '../geometry/strands'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import { blocksOf } from '../slicing/blocks'
import { type Layers, layerCount } from '../slicing/layers'
import { type Afloat, findAfloat } from '../supports/findAfloat'
import { findSupports } from '../supports/findSupports'
import { type Supports, supportKind } from '../supports/supports'
import { joined } from '../units/shared'
import { doAlone } from '../work/doAlone'
import { justOne, onEach, type Task, type Work } from '../work/work'
import { type CombinedInfill, combineInfill } from './combineInfill'
import { type Divided, divideLayers } from './divideLayers'
import { layFoot } from './layFoot'

/** What each layer is made of; every member has one group a layer unless it says otherwise, mm. */
export interface Regions extends Omit<Divided, 'infill'>, CombinedInfill {
  readonly support: Supports
  /** Bodies that begin with nothing under them, lowest first. */
  readonly afloat: readonly Afloat[]
  /** Skirt and brim: closed centre lines on the bed, a single group. */
  readonly foot: Contours
}

/**
 * Divides every layer into walls, tops and bottoms, bridges and infill by comparing it with its neighbours, and builds what stands
 * around it. Supports, foot and thick infill are those of the part as a whole and know no overrides.
 *
 * @param bore of the nozzle, mm
 */
export function* regionsWork(layers: Layers, { settings, overrides }: Scopes, bore: number): Work<Regions> {
  const inputs = blocksOf(layerCount(layers)).map((block) => ({ layers, block, settings, overrides }))
  const divideTo = supportKind({ settings, overrides }) === undefined || settings.spiralWall === 'on' ? 1 : 2 / 3
  const divided = joinDivided(yield* onEach(divideLayers, inputs, { stage: 'regions', to: divideTo }))
  return yield* justOne(standAround, { layers, divided, settings, overrides, bore }, { stage: 'regions', from: divideTo })
}

/** Finds regions in this thread alone. */
export const findRegions = (layers: Layers, scopes: Scopes, bore: number, kernel: PolygonKernel): Regions =>
  doAlone(regionsWork(layers, scopes, bore), kernel)

interface Surroundings {
  readonly layers: Layers
  readonly divided: Divided
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly bore: number
}

/** What goes through layers one after another, from the top down or in the whole. */
export const standAround: Task<Surroundings, Regions> = {
  name: 'standAround',
  run: ({ layers, divided: { infill, ...divided }, settings, overrides, bore }, { kernel, tick }) => {
    const combined = combineInfill(infill, layers.height, settings.infillEvery, bore, kernel)
    // A vessel's wall rises past whatever would stand under it.
    const scopes = settings.spiralWall === 'on' ? new Scopes({ ...settings, supports: 'off' }) : new Scopes(settings, overrides)
    const support = findSupports(layers, divided, scopes, kernel, (done) => tick(done / layerCount(layers)))
    const foot = layFoot(layers, support.body, scopes, kernel)
    return { ...divided, ...combined, support, afloat: findAfloat(layers, support, settings, kernel), foot }
  },
}

function joinDivided(blocks: readonly Divided[]): Divided {
  const all = <K extends keyof Divided>(member: K): Divided[K][] => blocks.map((block) => block[member])
  const byDepth = <T>(of: (block: Divided) => readonly T[], join: (parts: readonly T[]) => T): T[] =>
    of(blocks[0]!).map((_, depth) => join(blocks.map((block) => of(block)[depth]!)))
  return {
    walls: byDepth((block) => block.walls, joinContours),
    wallParts: byDepth((block) => block.wallParts, joinStrands),
    thin: joinStrands(all('thin')),
    lost: joined(all('lost')),
    topBottom: joinContours(all('topBottom')),
    bridges: joinContours(all('bridges')),
    bridgeAngle: joined(all('bridgeAngle')),
    bridgeSpan: joined(all('bridgeSpan')),
    ironed: joinContours(all('ironed')),
    infill: joinContours(all('infill')),
  }
}
