import { filamentArea } from '../melt/flow'
import type { Settings } from '../profile/settings'
import type { Printer } from '../shelf/printer'
import { code, type Feature, isLaid, moveCount, type Toolpath } from '../toolpath/toolpath'
import { deviationCornerSquared, instantChangeCorner } from './cornerSpeed'
import { limiterCode } from './limiters'
import { peakSpeed, trapezoidTime } from './trapezoid'

/** When and how fast every move runs. One entry a move unless said otherwise. */
export interface Motion {
  /** s */
  readonly duration: Float32Array
  /** Highest speed reached, mm/s. For retract and pushBack the speed of the filament. */
  readonly peak: Float32Array
  /** Code of what kept the move from being faster. */
  readonly limiter: Uint8Array
  /** s per layer, travels and retractions included. */
  readonly layerTime: Float64Array
  /** What the asked speeds of each layer were multiplied by so that it takes its least time; 1 where nothing was slowed. */
  readonly layerScale: Float64Array
}

export type MotionSettings = Pick<
  Settings,
  | 'outerWallSpeed'
  | 'innerWallSpeed'
  | 'infillSpeed'
  | 'skinSpeed'
  | 'firstLayerSpeed'
  | 'travelSpeed'
  | 'acceleration'
  | 'travelAcceleration'
  | 'cornerSpeed'
  | 'minLayerTime'
  | 'floorSpeed'
  | 'flowLimit'
  | 'retractLength'
  | 'retractSpeed'
  | 'pushBackSpeed'
>

export type MotionPrinter = Pick<Printer, 'limits' | 'cornerSchool' | 'filamentDiameter'>

/** Layer time is met within this share, and tried at most this often. */
const LAYER_TIME_TOLERANCE = 1e-4
const LAYER_TIME_TRIES = 40
/** A move whose peak comes this near its cap has reached it. */
const REACHED = 1 - 1e-6

/**
 * Plans the speed of every move (models §2): each is capped by what was asked, flow, axes and extruder, corners bound the
 * speed between moves, and backward and forward passes keep every change of speed within the acceleration. Layers that
 * would be done too soon are slowed (models §3). Each layer begins and ends at rest, as its move upward nearly is.
 */
export function planMotion(
  path: Toolpath,
  settings: MotionSettings,
  printer: MotionPrinter,
  onLayer: (done: number, of: number) => void = () => {},
): Motion {
  const layers = path.layerStart.length - 1
  const longest = path.layerStart.reduce((most, start, i) => (i === 0 ? 0 : Math.max(most, start - path.layerStart[i - 1]!)), 0)
  const plan = new LayerPlan(path, settings, printer, longest)
  const moves = moveCount(path)
  const motion = {
    duration: new Float32Array(moves),
    peak: new Float32Array(moves),
    limiter: new Uint8Array(moves),
    layerTime: new Float64Array(layers),
    layerScale: new Float64Array(layers).fill(1),
  }
  for (let layer = 0; layer < layers; layer++) {
    plan.prepare(layer)
    let time = plan.time(1)
    if (time < settings.minLayerTime) {
      const slowed = slowTo(settings.minLayerTime, time, plan)
      motion.layerScale[layer] = slowed.scale
      time = slowed.time
    }
    motion.layerTime[layer] = time
    plan.write(motion, path.layerStart[layer]!)
    onLayer(layer + 1, layers)
  }
  return motion
}

/** Finds the scale of the asked speeds at which a layer takes `wanted` s; stops at the floor speed. */
function slowTo(wanted: number, timeAtFull: number, plan: LayerPlan): { scale: number; time: number } {
  let low = 0
  let high = 1
  let timeHigh = timeAtFull
  let scale = 1
  let time = plan.time(low)
  if (time <= wanted) return { scale: plan.floorScale, time }
  for (let i = 0; i < LAYER_TIME_TRIES; i++) {
    // Time is nearly inverse to speed, so that guess comes first; halving takes over where it leaves the bracket.
    const guess = (high * timeHigh) / wanted
    scale = i < 6 && guess > low && guess < high ? guess : (low + high) / 2
    time = plan.time(scale)
    if (Math.abs(time - wanted) <= LAYER_TIME_TOLERANCE * wanted) break
    if (time > wanted) low = scale
    else {
      high = scale
      timeHigh = time
    }
  }
  return { scale, time }
}

/** Working memory for one layer at a time; allocated once for the longest. */
class LayerPlan {
  private readonly length: Float64Array
  private readonly acceleration: Float64Array
  private readonly asked: Float64Array
  private readonly cap: Float64Array
  private readonly hardCap: Float64Array
  private readonly hardLimiter: Uint8Array
  private readonly limiter: Uint8Array
  /** Largest squared speed between move i − 1 and i, from the corner alone. */
  private readonly corner: Float64Array
  /** Squared speed between moves. */
  private readonly joint: Float64Array
  private readonly laid: Uint8Array
  private count = 0
  private speedOf: Float64Array = new Float64Array(0)
  /** Least scale that changes anything: everything asked is then at the floor speed. */
  floorScale = 0

  constructor(
    private readonly path: Toolpath,
    private readonly settings: MotionSettings,
    private readonly printer: MotionPrinter,
    size: number,
  ) {
    this.length = new Float64Array(size)
    this.acceleration = new Float64Array(size)
    this.asked = new Float64Array(size)
    this.cap = new Float64Array(size)
    this.hardCap = new Float64Array(size)
    this.hardLimiter = new Uint8Array(size)
    this.limiter = new Uint8Array(size)
    this.corner = new Float64Array(size + 1)
    this.joint = new Float64Array(size + 1)
    this.laid = new Uint8Array(size)
  }

  /** Reads a layer's moves and finds everything that does not depend on layer-time slowing. */
  prepare(layer: number): void {
    const { path, settings, printer } = this
    const { x, y, z } = path
    const first = path.layerStart[layer]!
    this.count = path.layerStart[layer + 1]! - first
    this.speedOf = askedSpeeds(settings)
    const filament = filamentArea(printer.filamentDiameter)
    const { speed, acceleration, extruderSpeed, extruderAcceleration } = printer.limits
    const deviation = printer.cornerSchool === 'deviation'
    let ux = 0
    let uy = 0
    let uz = 0
    let fastestAsked = 0
    for (let i = 0; i < this.count; i++) {
      const m = first + i
      const feature = path.feature[m]!
      const area = path.area[m]!
      const dx = x[m + 1]! - x[m]!
      const dy = y[m + 1]! - y[m]!
      const dz = z[m + 1]! - z[m]!
      const length = Math.sqrt(dx * dx + dy * dy + dz * dz)
      const laid = isLaid(feature)
      this.laid[i] = laid ? 1 : 0
      if (feature === code.retract || feature === code.pushBack) {
        this.prepareFilamentMove(i, feature)
        ux = uy = uz = 0
        continue
      }
      this.length[i] = length
      const nx = length > 0 ? dx / length : 0
      const ny = length > 0 ? dy / length : 0
      const nz = length > 0 ? dz / length : 0

      let asked = this.speedOf[feature]!
      let limiter = limiterCode.asked
      let cap = Infinity
      if (laid && layer === 0 && settings.firstLayerSpeed < asked) {
        asked = settings.firstLayerSpeed
        limiter = limiterCode.firstLayer
      }
      let a = laid ? settings.acceleration : settings.travelAcceleration
      const ax = Math.abs(nx)
      const ay = Math.abs(ny)
      const az = Math.abs(nz)
      const axisSpeed = Math.min(ax > 0 ? speed.x / ax : Infinity, ay > 0 ? speed.y / ay : Infinity, az > 0 ? speed.z / az : Infinity)
      let hard = limiterCode.axis
      cap = axisSpeed
      if (ax > 0) a = Math.min(a, acceleration.x / ax)
      if (ay > 0) a = Math.min(a, acceleration.y / ay)
      if (az > 0) a = Math.min(a, acceleration.z / az)
      if (area > 0) {
        const byFlow = settings.flowLimit / area
        if (byFlow < cap) {
          cap = byFlow
          hard = limiterCode.flow
        }
        const byFeed = (extruderSpeed * filament) / area
        if (byFeed < cap) {
          cap = byFeed
          hard = limiterCode.extruder
        }
        a = Math.min(a, (extruderAcceleration * filament) / area)
        if (asked > fastestAsked) fastestAsked = asked
      }
      this.asked[i] = asked
      this.hardCap[i] = cap
      this.hardLimiter[i] = cap < asked ? hard : limiter
      this.acceleration[i] = a
      if (ux === 0 && uy === 0 && uz === 0) this.corner[i] = 0
      else if (deviation) {
        const before = this.acceleration[i - 1]! * this.length[i - 1]!
        const here = a * length
        this.corner[i] = deviationCornerSquared(ux * nx + uy * ny + uz * nz, settings.cornerSpeed, Math.min(before, here))
      } else {
        const v = instantChangeCorner(nx - ux, ny - uy, nz - uz, settings.cornerSpeed)
        this.corner[i] = v * v
      }
      ux = nx
      uy = ny
      uz = nz
    }
    this.corner[this.count] = 0
    this.floorScale = fastestAsked > 0 ? Math.min(1, settings.floorSpeed / fastestAsked) : 1
  }

  /** Plans the layer with its asked speeds times `scale`, none below the floor speed. Returns its time, s. */
  time(scale: number): number {
    const { count, length, acceleration, joint, cap } = this
    const floor = this.settings.floorSpeed
    for (let i = 0; i < count; i++) {
      const asked = this.asked[i]!
      let wanted = asked
      if (this.laid[i] === 1 && scale < 1) wanted = Math.min(asked, Math.max(floor, asked * scale))
      const hard = this.hardCap[i]!
      cap[i] = Math.min(hard, wanted)
      this.limiter[i] = wanted < asked && wanted < hard ? limiterCode.layerTime : this.hardLimiter[i]!
    }
    joint[0] = 0
    joint[count] = 0
    for (let i = count - 1; i > 0; i--) {
      const lower = Math.min(cap[i]!, cap[i - 1]!)
      const reachable = joint[i + 1]! + 2 * acceleration[i]! * length[i]!
      let v2 = lower * lower
      if (this.corner[i]! < v2) v2 = this.corner[i]!
      joint[i] = Math.min(reachable, v2)
    }
    let total = 0
    for (let i = 0; i < count; i++) {
      const reachable = joint[i]! + 2 * acceleration[i]! * length[i]!
      if (reachable < joint[i + 1]!) joint[i + 1] = reachable
      total += trapezoidTime(length[i]!, Math.sqrt(joint[i]!), Math.sqrt(joint[i + 1]!), cap[i]!, acceleration[i]!)
    }
    return total
  }

  /** Writes what `time` planned last to the moves from `first` on. */
  write(motion: { duration: Float32Array; peak: Float32Array; limiter: Uint8Array }, first: number): void {
    const { length, acceleration, joint, cap } = this
    for (let i = 0; i < this.count; i++) {
      const v0 = Math.sqrt(joint[i]!)
      const v1 = Math.sqrt(joint[i + 1]!)
      const peak = Math.min(cap[i]!, peakSpeed(length[i]!, v0, v1, acceleration[i]!))
      motion.duration[first + i] = trapezoidTime(length[i]!, v0, v1, cap[i]!, acceleration[i]!)
      motion.peak[first + i] = peak
      motion.limiter[first + i] = peak < cap[i]! * REACHED ? limiterCode.acceleration : this.limiter[i]!
    }
  }

  private prepareFilamentMove(i: number, feature: number): void {
    const { retractLength, retractSpeed, pushBackSpeed } = this.settings
    const { extruderSpeed, extruderAcceleration } = this.printer.limits
    this.length[i] = retractLength
    this.asked[i] = feature === code.retract ? retractSpeed : pushBackSpeed
    this.hardCap[i] = extruderSpeed
    this.hardLimiter[i] = extruderSpeed < this.asked[i]! ? limiterCode.extruder : limiterCode.asked
    this.acceleration[i] = extruderAcceleration
    this.corner[i] = 0
  }
}

function askedSpeeds(settings: MotionSettings): Float64Array {
  const speeds: Record<Feature, number> = {
    travel: settings.travelSpeed,
    retract: settings.retractSpeed,
    pushBack: settings.pushBackSpeed,
    outerWall: settings.outerWallSpeed,
    innerWall: settings.innerWallSpeed,
    skin: settings.skinSpeed,
    infill: settings.infillSpeed,
  }
  return Float64Array.from(Object.keys(code), (feature) => speeds[feature as Feature])
}
