import type { Constants } from '../constants/constants'
import type { TimeFigures } from '../motion/timeFigures'
import { type RingingFigures, ringingFigures } from '../physics/finish/ringing'
import { droopOf, type Sag, sagOf } from '../physics/finish/sag'
import { oozeOf } from '../physics/finish/strings'
import { type SurfaceFigures, starved } from '../physics/finish/surfaceFigures'
import { type SurfaceMark, surfaceMarks, withMarks } from '../physics/finish/surfaceMarks'
import type { TopClosure } from '../physics/finish/topClosure'
import type { PhysicsFigures } from '../physics/physicsFigures'
import type { Scopes } from '../profile/overrides'
import type { Settings } from '../profile/settings'
import type { KnownSetup } from '../setup/knownSetup'
import type { Setup } from '../setup/resolve'
import { waterTaken } from '../shelf/spool'
import type { LineMarks } from '../toolpath/lineMarks'

/** What a print looks like. */
export interface FinishOf {
  readonly ringing: RingingFigures
  readonly surface: SurfaceFigures
  /** What of it is not the steps of layers. */
  readonly surfaceMarks: readonly SurfaceMark[]
  readonly sag: Sag
}

interface FinishInput {
  readonly setup: KnownSetup
  readonly scopes: Scopes
  readonly time: Pick<TimeFigures, 'realSpeeds'>
  /** Of the steps of its layers alone. */
  readonly surface: SurfaceFigures
  readonly lines: LineMarks
  readonly closure: TopClosure
  readonly physics: PhysicsFigures
  readonly longestBridgeMm: number
}

export function finishOf({ setup, scopes, time, surface, lines, closure, physics, longestBridgeMm }: FinishInput): FinishOf {
  const { printer, material, stock, constants } = setup
  const { finish } = constants
  // Marks are those of what holds for most of the wall.
  const settings = scopes.settingsOf(lines.scope)
  const wallSpeed = time.realSpeeds.outerWall.speedMmS
  const ringing = mostRinging(scopes, wallSpeed, printer, finish)
  const marks = surfaceMarks({
    lines,
    settings,
    ringing: ringingUnder(settings, wallSpeed, printer, finish),
    wallSpeed,
    acceleration: settings.outerWallAcceleration || settings.acceleration,
    extruder: printer.extruder,
    pressureAdvance: printer.pressureAdvance,
    oozes: oozeOf(material.family, constants.strings),
    closure,
    wet: stock ? waterTaken(stock, material) : 0,
    constants,
  })
  // Overhangs have a speed and a fan of their own.
  const overAir = {
    speed: (wallSpeed * settings.overhangSpeed75) / 100,
    fan: Math.max(settings.fanSpeed, settings.overhangFan75) / 100,
    margin: physics.cooling.margin,
  }
  return {
    ringing,
    surface: withMarks(starved(surface, physics.melt.missing, finish), marks),
    surfaceMarks: marks,
    sag: {
      droopMm: droopOf(lines.hanging, settings.layerHeight, overAir, finish),
      hanging: lines.hanging,
      bridgeMm: sagOf(longestBridgeMm, { speed: settings.bridgeSpeed, fan: settings.bridgeFan / 100 }, finish),
      spanMm: longestBridgeMm,
    },
  }
}

const ringingUnder = (
  { cornerSpeed, outerWallAcceleration, acceleration }: Settings,
  wallSpeed: number,
  printer: Setup['printer'],
  finish: Constants['finish'],
): RingingFigures => ringingFigures(wallSpeed, cornerSpeed, outerWallAcceleration || acceleration, printer, finish)

/** Ringing under those of all settings that hold somewhere under which it swings most. @param wallSpeed mm/s */
const mostRinging = (scopes: Scopes, wallSpeed: number, printer: Setup['printer'], finish: Constants['finish']): RingingFigures =>
  scopes.sets
    .map((_, scope) => ringingUnder(scopes.settingsOf(scope), wallSpeed, printer, finish))
    .reduce((most, next) => (next.amplitudeMm > most.amplitudeMm ? next : most))
