import { type Override, Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import { type Block, blocksOf } from '../slicing/blocks'
import { code, isLaid, mindsAir, moveCount, type Toolpath } from '../toolpath/toolpath'
import { filamentArea } from '../units/flow'
import { sharedRoom } from '../units/shared'
import { onEach, type Task, type Work } from '../work/work'
import { type AskedPace, askedPace, type MotionSettings } from './askedPace'
import { limiterCode } from './limiters'
import { type MotionPrinter, MoveChunk, nextMove, pace } from './moveChunk'

/** When and how fast every move runs. One entry a move unless said otherwise. */
export interface Motion {
  /** s */
  readonly duration: Float32Array
  /** Highest speed reached, mm/s. For retract and pushBack the speed of the filament. */
  readonly peak: Float32Array
  /** Speed at the end of the move, mm/s. */
  readonly exit: Float32Array
  /** What a program must ask for so that the move runs as planned on a machine with these limits: mm/s and mm/s². */
  readonly asked: Float32Array
  readonly acceleration: Float32Array
  /** Code of what kept the move from being faster. */
  readonly limiter: Uint8Array
  /** s per layer, travels and retractions included. */
  readonly layerTime: Float64Array
  /** s per layer, before any was slowed so that it takes its least time. */
  readonly layerUnslowed: Float64Array
  /** What the asked speeds of each layer were multiplied by so that it takes its least time; 1 where nothing was slowed. */
  readonly layerScale: Float64Array
}

/** Settings in force in a scope; 0 is where no override holds. */
export type SettingsOf = (scope: number) => MotionSettings

/** Layer time is met within this share, and tried at most this often. */
const LAYER_TIME_TOLERANCE = 1e-4
const LAYER_TIME_TRIES = 40

/**
 * Plans the speed of every move (models §2), layer by layer; layers that would be done too soon are slowed (models §3).
 */
export function planMotion(path: Toolpath, settingsOf: SettingsOf, printer: MotionPrinter): Motion {
  const motion = unplanned(path)
  for (const block of blocksOf(path.layerStart.length - 1)) planLayers(path, block, settingsOf, printer, motion)
  return motion
}

/** Plans motion in blocks of layers that can be planned at once. */
export function* motionWork(path: Toolpath, { settings, overrides }: Scopes, printer: MotionPrinter): Work<Motion> {
  const into = unplanned(path)
  yield* onEach(
    planBlock,
    blocksOf(path.layerStart.length - 1).map((block) => ({ path, block, settings, overrides, printer, into })),
    { stage: 'motion' },
  )
  return into
}

interface PlanInput {
  readonly path: Toolpath
  readonly block: Block
  readonly settings: Settings
  readonly overrides: readonly Override[]
  readonly printer: MotionPrinter
  /** Shared by all blocks, each of which writes its own moves and layers. */
  readonly into: Motion
}

export const planBlock: Task<PlanInput, void> = {
  name: 'planBlock',
  run: ({ path, block, settings, overrides, printer, into }, { tick }) => {
    const scopes = new Scopes(settings, overrides, path.sets)
    planLayers(path, block, (scope) => scopes.settingsOf(scope), printer, into, tick)
  },
}

function unplanned({ layerStart, feature }: Toolpath): Motion {
  const [moves, layers] = [feature.length, layerStart.length - 1]
  return {
    duration: new Float32Array(sharedRoom(4 * moves)),
    peak: new Float32Array(sharedRoom(4 * moves)),
    exit: new Float32Array(sharedRoom(4 * moves)),
    asked: new Float32Array(sharedRoom(4 * moves)),
    acceleration: new Float32Array(sharedRoom(4 * moves)),
    limiter: new Uint8Array(sharedRoom(moves)),
    layerTime: new Float64Array(sharedRoom(8 * layers)),
    layerUnslowed: new Float64Array(sharedRoom(8 * layers)),
    layerScale: new Float64Array(sharedRoom(8 * layers)),
  }
}

/** Plans the moves of a block of layers. */
function planLayers(
  path: Toolpath,
  { from, to }: Block,
  settingsOf: SettingsOf,
  printer: MotionPrinter,
  into: Motion,
  tick: (share: number) => void = () => {},
): void {
  const { layerStart } = path
  const layers = layerStart.length - 1
  const chunk = new MoveChunk(printer)
  const paces = new PaceBook(settingsOf)
  const filament = filamentArea(printer.filamentDiameter)
  // A layer more is planned ahead of the block, to know at what speed it is entered.
  for (let layer = Math.max(0, from - 1); layer < to; layer++) {
    const entry = chunk.exit
    chunk.clear()
    chunk.entry = entry
    readMoves(path, layer, layerStart[layer]!, layerStart[layer + 1]!, paces, filament, chunk)
    // The first move of the next layer shows at what speed this one may end.
    if (layer + 1 < layers && layerStart[layer + 1]! < moveCount(path)) {
      const next = layerStart[layer + 1]!
      readMoves(path, layer + 1, next, next + 1, paces, filament, chunk)
      chunk.looksAhead = true
    }
    const settings = slowestOf(path, layer, paces)
    const unslowed = chunk.plan()
    let [time, scale] = [unslowed, 1]
    if (time < settings.minLayerTime) ({ time, scale } = slowDown(chunk, settings, time))
    if (layer < from) continue
    into.layerTime[layer] = time
    into.layerUnslowed[layer] = unslowed
    into.layerScale[layer] = scale
    chunk.write(into, layerStart[layer]!)
    tick((layer + 1 - from) / (to - from))
  }
}

/** Of the settings that hold somewhere on a layer those that ask for most time: parts that are printed together share their layers. */
function slowestOf({ scope, layerStart, area }: Toolpath, layer: number, paces: PaceBook): MotionSettings {
  let slowest = paces.of(scope[layerStart[layer]!] ?? 0).settings
  let last = -1
  for (let m = layerStart[layer]!; m < layerStart[layer + 1]!; m++) {
    if (scope[m] === last || area[m] === 0) continue
    last = scope[m]!
    const { settings } = paces.of(last)
    if (settings.minLayerTime > slowest.minLayerTime) slowest = settings
  }
  return slowest
}

/** What is asked under each set of overrides, worked out once. */
class PaceBook {
  private readonly known: AskedPace[] = []

  constructor(private readonly settingsOf: SettingsOf) {}

  of(scope: number): AskedPace {
    this.known[scope] ??= askedPace(this.settingsOf(scope))
    return this.known[scope]
  }
}

/** Puts moves of a layer into a chunk. */
function readMoves(path: Toolpath, layer: number, from: number, to: number, paces: PaceBook, filament: number, chunk: MoveChunk): void {
  const { x, y, z, feature, area, width, air, scope } = path
  const base = paces.of(0)
  let here = base
  let inForce = 0
  const perFilament = 1 / filament
  // The outer wall that is being laid: where it ends, and how long it is where it closes.
  let [loopEnd, loopMm] = [from, Infinity]
  const rank = path.rank[layer]!
  const { next, keeps } = chunk
  for (let m = from; m < to; m++) {
    const kind = feature[m]!
    if (scope[m] !== inForce) {
      inForce = scope[m]!
      here = paces.of(inForce)
    }
    const { settings } = here
    if (kind === code.retract || kind === code.pushBack) {
      const wiped = kind === code.retract && feature[m + 1] === code.wipe
      chunk.addFilament(settings.retractLength * (wiped ? settings.wipeRetractFirst / 100 : 1), here.speed[kind]!)
      continue
    }
    let asked = here.speed[kind]!
    let acceleration = here.acceleration[kind]!
    let limiter: number = inForce !== 0 && asked !== base.speed[kind]! ? limiterCode.override : limiterCode.asked
    let slowing: number = pace.fixed
    if (isLaid(kind)) {
      slowing = kind === code.outerWall ? pace.outerWall : pace.other
      if (kind === code.outerWall && settings.smallLoopSpeed > 0) {
        if (m >= loopEnd) ({ end: loopEnd, mm: loopMm } = loopAt(path, m, layer))
        if (loopMm <= settings.smallLoopLength) asked = Math.min(asked, settings.smallLoopSpeed)
      }
      if (air[m]! > 63 && mindsAir[kind] === 1) asked *= here.overAir[(air[m]! >> 6) as 0 | 1 | 2 | 3]
      if (rank < settings.slowFirstLayers) {
        const slow = settings.firstLayerSpeed + ((asked - settings.firstLayerSpeed) * rank) / settings.slowFirstLayers
        if (slow < asked) {
          asked = slow
          limiter = limiterCode.firstLayer
        }
        if (rank === 0 && settings.firstLayerAcceleration > 0) acceleration = settings.firstLayerAcceleration
      }
    }
    const feed =
      kind === code.wipe
        ? (-settings.retractLength * (1 - settings.wipeRetractFirst / 100)) / Math.max(1e-6, width[m]!)
        : area[m]! * perFilament
    next[nextMove.dx] = x[m + 1]! - x[m]!
    next[nextMove.dy] = y[m + 1]! - y[m]!
    next[nextMove.dz] = z[m + 1]! - z[m]!
    next[nextMove.feed] = feed
    next[nextMove.asked] = asked
    next[nextMove.acceleration] = acceleration * keeps
    next[nextMove.cornerSpeed] = settings.cornerSpeed
    next[nextMove.flowLimit] = settings.flowLimit
    chunk.addMove(limiter, slowing)
  }
}

/** Two points are one that are no farther apart, mm. */
const SAME = 1e-6

/** The outer wall that a move is of: the move after it, and its length; without end where it does not close, mm. */
function loopAt({ x, y, feature, layerStart }: Toolpath, move: number, layer: number): { readonly end: number; readonly mm: number } {
  const isOf = (m: number): boolean => feature[m] === code.outerWall || feature[m] === code.coast
  let [start, end] = [move, move]
  while (start > layerStart[layer]! && isOf(start - 1)) start--
  while (end < layerStart[layer + 1]! && isOf(end)) end++
  let mm = 0
  for (let m = start; m < end; m++) mm += Math.hypot(x[m + 1]! - x[m]!, y[m + 1]! - y[m]!)
  const closes = Math.hypot(x[end]! - x[start]!, y[end]! - y[start]!) <= SAME
  return { end, mm: closes ? mm : Infinity }
}

type SlowSettings = Pick<Settings, 'minLayerTime' | 'floorSpeed' | 'layerTimeWalls'>

/**
 * Slows a layer until it takes its least time, by bisection on the planned time, since acceleration makes it non-linear.
 * Where one kind of wall is slowed first or spared, the other follows only when the first runs at the floor speed already.
 */
function slowDown(
  chunk: MoveChunk,
  { minLayerTime, floorSpeed, layerTimeWalls }: SlowSettings,
  time: number,
): { time: number; scale: number } {
  if (chunk.fastestAsked <= 0) return { time, scale: 1 }
  const floorScale = Math.min(1, floorSpeed / chunk.fastestAsked)
  const stages: readonly ((scale: number) => number)[] =
    layerTimeWalls === 'all'
      ? [(scale) => chunk.plan(scale, scale, floorSpeed)]
      : layerTimeWalls === 'allButOuter'
        ? [(scale) => chunk.plan(1, scale, floorSpeed), (scale) => chunk.plan(scale, floorScale, floorSpeed)]
        : [(scale) => chunk.plan(scale, 1, floorSpeed), (scale) => chunk.plan(floorScale, scale, floorSpeed)]
  let slowest = time
  for (const planWith of stages) {
    slowest = planWith(floorScale)
    if (slowest >= minLayerTime) return scaleTo(minLayerTime, time, planWith, floorScale)
  }
  return { time: slowest, scale: floorScale }
}

/** Finds the scale at which a layer takes `wanted` s. */
function scaleTo(
  wanted: number,
  timeAtFull: number,
  planWith: (scale: number) => number,
  floorScale: number,
): { time: number; scale: number } {
  let low = floorScale
  let high = 1
  let timeHigh = timeAtFull
  let scale = 1
  let time = timeAtFull
  for (let tries = 0; tries < LAYER_TIME_TRIES; tries++) {
    // Time is nearly inverse to speed, so that guess comes first; halving takes over where it leaves the bracket.
    const guess = (high * timeHigh) / wanted
    scale = tries < 6 && guess > low && guess < high ? guess : (low + high) / 2
    time = planWith(scale)
    if (Math.abs(time - wanted) <= LAYER_TIME_TOLERANCE * wanted) break
    if (time > wanted) low = scale
    else {
      high = scale
      timeHigh = time
    }
  }
  return { time, scale }
}
