import type { Constants } from '../../constants/constants'
import type { Settings } from '../../profile/settings'
import type { Printer } from '../../shelf/printer'
import type { LineMarks } from '../../toolpath/lineMarks'
import type { RingingFigures } from './ringing'
import type { SurfaceFigures } from './surfaceFigures'
import type { TopClosure } from './topClosure'

/** What a surface has beside the steps of its layers, each told apart: what it adds to the mean roughness of sides and tops, µm. */
export interface SurfaceMark {
  readonly id: 'waves' | 'seams' | 'pressure' | 'ends' | 'openTop' | 'bubbles'
  readonly label: string
  readonly sidesUm: number
  readonly topUm: number
}

export interface MarkInput {
  readonly lines: LineMarks
  readonly settings: Pick<Settings, 'lineWidth' | 'coastLength' | 'wipeLength' | 'cornerSpeed'>
  readonly ringing: RingingFigures
  /** What the outer wall really runs at, mm/s, and its acceleration, mm/s². */
  readonly wallSpeed: number
  readonly acceleration: number
  readonly extruder: Printer['extruder']
  /** By how much the firmware feeds ahead, s; 0 where it does not, nothing where nobody told. */
  readonly pressureAdvance: number | undefined
  /** How much the material oozes over PLA. */
  readonly oozes: number
  readonly closure: TopClosure
  /** Share of its water that the filament has taken up, 0 where nobody knows. */
  readonly wet: number
  readonly constants: Pick<Constants, 'finish' | 'strings'>
}

/** Mean of a wave's distance from its mean over its amplitude: 2/π. */
const RA_OF_WAVE = 2 / Math.PI
/** A bump stands for twice the roughness that it adds where it is: half of it lies over the mean. */
const RA_OF_BUMP = 0.5
/** Tops thicker by so much than their gap needs are closed. */
const CLOSED = 1

/**
 * Marks of a part's surface: each is a bump of a height on a share of the face, added to its mean roughness by that share. All
 * semi-empirical but the waves, which are the frame's own.
 */
export function surfaceMarks(of: MarkInput): SurfaceMark[] {
  const { lines, settings, ringing, constants, closure } = of
  const { finish } = constants
  const { lineWidth } = settings
  // Both are what a drop that is pressed out leaves; coasting and wiping take it away as they take strings.
  const drop =
    finish.drop * of.oozes * Math.exp(-settings.coastLength / constants.strings.coast - settings.wipeLength / constants.strings.wipe)
  const share = (count: number, length: number, of: number): number => (of > 0 ? Math.min(1, (count * length) / of) : 0)
  const waves = share(lines.corners, ringing.wavelengthMm / (2 * Math.PI * finish.ringDamping), lines.wallMm)
  const braking = brakingLength(of)
  return [
    {
      id: 'waves',
      label: 'waves behind corners',
      sidesUm: waves * RA_OF_WAVE * 1000 * ringing.amplitudeMm,
      topUm: 0,
    },
    { id: 'seams', label: 'seams', sidesUm: share(lines.loops, 2 * lineWidth, lines.wallMm) * RA_OF_BUMP * drop, topUm: 0 },
    {
      id: 'pressure',
      label: 'pressure that lags at corners',
      sidesUm: share(lines.corners, braking + lineWidth, lines.wallMm) * RA_OF_BUMP * 1000 * bulgeAtCorner(of, braking),
      topUm: 0,
    },
    {
      id: 'ends',
      label: 'ends of separate lines',
      sidesUm: 0,
      topUm: share(lines.topBottomLines, 2 * lineWidth, lines.topBottomMm) * RA_OF_BUMP * drop,
    },
    { id: 'openTop', label: 'a thin top over sparse infill', sidesUm: 0, topUm: openTop(closure, finish.openTop) },
    { id: 'bubbles', label: 'bubbles of wet filament', sidesUm: finish.bubbles * of.wet, topUm: finish.bubbles * of.wet },
  ]
}

/** Way on which the wall brakes for a corner, mm. */
const brakingLength = ({ wallSpeed, settings: { cornerSpeed }, acceleration }: MarkInput): number =>
  acceleration > 0 ? Math.max(0, wallSpeed ** 2 - Math.min(wallSpeed, cornerSpeed) ** 2) / (2 * acceleration) : 0

/** How far a wall bulges at a corner, mm: what pressure still pushes out while it brakes, spread over that way and a line's width. */
function bulgeAtCorner({ wallSpeed, settings, extruder, pressureAdvance, constants: { finish } }: MarkInput, braking: number): number {
  // Who does not tell is taken to feed ahead, as machines of today do.
  const left = extruder === 'tube' ? finish.lagTube : finish.lagDirect
  const whole = extruder === 'tube' ? finish.wholeLagTube : finish.wholeLagDirect
  const lag = pressureAdvance === 0 ? whole : left
  const slower = Math.max(0, wallSpeed - settings.cornerSpeed)
  return (settings.lineWidth * lag * slower) / (braking + settings.lineWidth) / 2
}

/** A top that is too thin for the gap sinks between the lines, µm. */
const openTop = ({ closure, gapMm }: TopClosure, perGap: number): number =>
  gapMm === undefined || closure >= CLOSED ? 0 : (CLOSED - closure) * perGap * 1000 * gapMm

/** What marks add to the whole: sides and tops by their shares of it. */
export const addedUm = ({ sidesUm, topUm }: SurfaceMark, { sidesShare, topShare }: SurfaceFigures): number =>
  sidesShare * sidesUm + topShare * topUm

export function withMarks(surface: SurfaceFigures, marks: readonly SurfaceMark[]): SurfaceFigures {
  const sum = (of: (mark: SurfaceMark) => number): number => marks.reduce((all, mark) => all + of(mark), 0)
  const [sides, top, all] = [sum(({ sidesUm }) => sidesUm), sum(({ topUm }) => topUm), sum((mark) => addedUm(mark, surface))]
  return {
    ...surface,
    raMeanUm: surface.raMeanUm + all,
    ra95Um: surface.ra95Um + all,
    sides: { raMeanUm: surface.sides.raMeanUm + sides, ra95Um: surface.sides.ra95Um + sides },
    top: { raMeanUm: surface.top.raMeanUm + top, ra95Um: surface.top.ra95Um + top },
  }
}
