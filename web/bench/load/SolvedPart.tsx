import type { SolvedPicture } from '@sable/core/physics/solved/picture'
import { useMemo } from 'react'
import type { Patch } from '../../solids/overlays'
import { type Solid, SolidDrawing, type SolidView, type Touch } from '../../solids/SolidDrawing'
import { TurnableFrame } from '../../solids/TurnableFrame'
import { type Cut, drawnSolved, type Limit, patchMoved, strokesOf } from './solvedDrawing'

/** Of strokes, on any of the scale's colours. */
export const strokeColours = { pulled: '#ffffff', pressed: '#ee8866' } as const

/** A part as it gives way, wearing how near each place of it is to failing. */
export function SolvedPart({
  name,
  picture,
  limit,
  load,
  times,
  cut,
  at,
  hasStrokes,
  patches,
  view,
  onClick,
}: {
  name: string
  picture: SolvedPicture
  limit: Limit
  /** That is shown, over the one at which it fails. */
  load: number
  /** How many times as far as it moves it is drawn moved. */
  times: number
  cut: Cut | undefined
  /** Where it fails first, mm. */
  at: readonly [number, number, number]
  /** Whether strokes tell which way it is pulled or pressed most. */
  hasStrokes: boolean
  patches: readonly Patch[]
  view: SolidView
  onClick?: ((touch: Touch) => void) | undefined
}) {
  const drawn = useMemo(() => drawnSolved(picture, limit, load, cut), [picture, limit, load, cut])
  const solid = useMemo(
    (): Solid => ({ corners: drawn.corners, moved: drawn.moved, shares: drawn.shares, by: 'facet', scale: 'viridis' }),
    [drawn],
  )
  const points = useMemo(() => Float32Array.from(at, (mm, k) => mm + load * times * picture.failsMoved[k]!), [at, load, times, picture])
  const moving = useMemo(
    () => patches.map((patch) => ({ ...patch, moved: patch.isAround ? undefined : patchMoved(picture, patch.corners) })),
    [patches, picture],
  )
  const far = load * times
  // Where it is held and loaded goes along; a box stays where it is drawn.
  const shown = useMemo(
    () =>
      moving.map(
        ({ moved, ...patch }): Patch =>
          far === 0 || !moved ? patch : { ...patch, corners: patch.corners.map((mm, i) => mm + far * moved[i]!) },
      ),
    [moving, far],
  )
  const lines = useMemo(() => {
    if (!hasStrokes) return []
    const { pulled, pressed } = strokesOf(picture, load, far, cut)
    return [
      { ends: pulled, colour: strokeColours.pulled },
      { ends: pressed, colour: strokeColours.pressed },
    ]
  }, [hasStrokes, picture, load, far, cut])
  return (
    <TurnableFrame name={name} view={view}>
      <SolidDrawing
        label={`${name}: how near each place is to failing, drawn as it gives way`}
        solid={solid}
        points={points}
        patches={shown}
        lines={lines}
        times={far}
        view={view}
        {...(onClick ? { onClick } : {})}
      />
    </TurnableFrame>
  )
}
