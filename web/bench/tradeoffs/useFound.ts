import type { FoundVariant, SearchSpec } from '@sable/contract/search'
import { figureIds } from '@sable/core/figures/table/figure'
import { type FigureLimit, meets, type Objective, usually } from '@sable/core/search/figures'
import { useEffect, useMemo, useState } from 'react'
import { useAddress } from '../../ui/useAddress'
import { extentOf, limitsFrom, limitsText, type Model, namedOf, type Point, pointsOf, solvedPointsOf } from './plot'
import type { Shades } from './Scatter'

/** What is looked at of a search's variants: axes, limits, the picked one. All of it stands in the address. */
export interface Found {
  /** What strength is told by, and how many there are that could be told as solved. */
  readonly model: Model
  readonly solvedCount: number
  readonly points: readonly Point[]
  /** Those that keep all limits. */
  readonly good: readonly Point[]
  readonly named: ReturnType<typeof namedOf>
  readonly axes: { readonly x: Objective; readonly y: Objective; readonly colour: Objective; readonly size: Objective | undefined }
  readonly shades: { readonly colour: Shades; readonly size: Shades | undefined }
  readonly limits: readonly FigureLimit[]
  readonly setLimits: (limits: readonly FigureLimit[]) => void
  readonly picked: Point | undefined
  readonly pick: (point: Point | undefined) => void
}

/** @param isAtWork as long as a search goes on, strength is told by sections */
export function useFound(spec: SearchSpec, variants: readonly FoundVariant[], isAtWork: boolean): Found {
  const { get, set } = useAddress()
  const [limits, setLimits] = useState<readonly FigureLimit[]>(() => {
    const asked = get('limits')
    return asked === undefined ? spec.limits : limitsFrom(asked)
  })
  useEffect(() => {
    // A limit that is being dragged is written down once it rests.
    const text = limitsText(limits)
    const wait = setTimeout(() => set({ limits: text === limitsText(spec.limits) ? undefined : text }), 250)
    return () => clearTimeout(wait)
  }, [limits, spec.limits, set])
  const all = useMemo(() => pointsOf(variants), [variants])
  const solved = useMemo(() => solvedPointsOf(all), [all])
  const model: Model = !isAtWork && solved.length > 0 && get('strength') !== 'sections' ? 'solved' : 'sections'
  const points = model === 'solved' ? solved : all
  const good = useMemo(() => points.filter(({ figures }) => meets(figures, limits)), [points, limits])
  const named = useMemo(() => namedOf(points, limits), [points, limits])
  const axisOf = (name: string | undefined, otherwise: number): Objective => {
    const figure = figureIds.find((one) => one === name)
    const own = spec.objectives.find((objective) => objective.figure === figure)
    return own ?? (figure ? usually(figure) : (spec.objectives[otherwise] ?? spec.objectives[0]!))
  }
  const shadesOf = ({ figure }: Objective): Shades => {
    const [low, high] = extentOf(points.map(({ figures }) => figures[figure]))
    return { figure, low, high }
  }
  const colour = axisOf(get('colour'), 2)
  const size = get('size') === undefined ? undefined : axisOf(get('size'), 0)
  const picked = Number(get('variant')) - 1
  return {
    model,
    solvedCount: solved.length,
    points,
    good,
    named,
    axes: { x: axisOf(get('x'), 0), y: axisOf(get('y'), 1), colour, size },
    shades: { colour: shadesOf(colour), size: size && shadesOf(size) },
    limits,
    setLimits,
    picked: points.find(({ variant }) => variant.position === picked),
    pick: (point) => set({ variant: point && String(point.variant.position + 1) }),
  }
}
