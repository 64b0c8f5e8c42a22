import type { SearchSpec } from '@sable/contract/search'
import type { Dimension } from '@sable/core/search/space'
import { useCallback, useState } from 'react'
import { useSize } from '../../ui/useSize'
import { HoverNote } from './HoverNote'
import { type Box, type Point, withLimit } from './plot'
import { type Mark, Scatter } from './Scatter'
import type { Found } from './useFound'

interface Props {
  readonly spec: SearchSpec
  readonly found: Found
  /** The columns of the ledger; the first is what others are compared with. */
  readonly marks: readonly Mark[]
  readonly brush: Box | undefined
  readonly onBrush: (brush: Box | undefined) => void
  readonly names: (kind: Dimension['kind'], key: string) => string
  readonly running: boolean
}

/** The variants as points, in what room there is, and what is under the pointer. */
export function FoundPlot({ spec, found, marks, brush, onBrush, names, running }: Props) {
  const { ref: frame, width, height } = useSize()
  const [hovered, setHovered] = useState<{ readonly point: Point; readonly at: readonly [number, number] }>()
  const onHover = useCallback(
    (point: Point | undefined, at: readonly [number, number]) => setHovered(point ? { point, at } : undefined),
    [],
  )
  const { points, named, limits, shades, picked } = found
  const { x, y, colour } = found.axes
  return (
    <div ref={frame} className="relative min-h-0 flex-1">
      {width > 100 && height > 100 && points.length > 0 && (
        <Scatter
          width={width}
          height={height}
          points={points}
          x={x}
          y={y}
          colour={shades.colour}
          size={shades.size}
          limits={limits}
          marks={marks}
          named={named}
          picked={picked}
          brush={brush}
          onPick={found.pick}
          onHover={onHover}
          onBrush={onBrush}
          onLimit={(axis, value) => found.setLimits(withLimit(limits, axis, value))}
        />
      )}
      {points.length === 0 && (
        <p role="status" className="absolute inset-0 m-auto h-5 text-center text-muted">
          {running ? 'The first variants are being computed …' : 'Nothing was found.'}
        </p>
      )}
      {hovered && <HoverNote {...hovered} spec={spec} first={marks[0]} names={names} width={width} axes={[x, y, colour]} />}
    </div>
  )
}
