import { directionOf } from '@sable/core/physics/strength/direction'
import { layerAt } from '@sable/core/slicing/layers'
import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { useMemo } from 'react'
import { coloursOf, keyOf } from '../../charts/colourings'
import { type FlatBox, FlatDrawing, flatView } from '../../charts/FlatDrawing'
import { KeyStrip } from '../../charts/KeyStrip'
import type { Pieces } from '../../solids/pieceList'
import { keepPieces, piecesOfCut, piecesOfLayer, piecesOfPart } from '../../solids/pieces'
import { piecesAcross } from '../../solids/slantedCut'
import { type Bearing, bears } from './bearing'

/** The section that fails first, drawn to scale with its walls, tops, bottoms and infill. */
export function WeakestSection({ name, bearing, moves }: { name: string; bearing: Bearing; moves: DrawnMoves }) {
  const { load, axis, along } = bearing
  const view = useMemo(() => flatView(), [])
  const drawn = useMemo(() => {
    const at = load.weakestAtMm
    const all = !axis
      ? piecesAcross(moves, directionOf(along), at)
      : axis === 'z'
        ? piecesOfLayer(moves, layerAt(moves.layerTop, at), false)
        : piecesOfCut(moves, axis, at)
    // What leads nowhere bears nothing and is left out.
    const pieces = keepPieces(piecesOfPart(all, moves), (u) => bears(bearing, at, u))
    const key = keyOf('feature', [moves])
    const met = new Set(Array.from(pieces.move, (m) => moves.feature[m]!))
    const shown = key.kind === 'kinds' ? { ...key, kinds: key.kinds.filter(({ id }) => met.has(id)) } : key
    return { pieces, key: shown, colours: coloursOf(pieces, moves, 'feature', key), box: boxOf(pieces) }
  }, [axis, along, bearing, moves, load.weakestAtMm])
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <p className="shrink-0 px-3 pt-1.5 text-[12px]">
        {name} <span className="text-muted">across {load.along} at</span>{' '}
        <span className="figure">{(load.weakestAtMm - bearing.from).toFixed(1)} mm</span>
      </p>
      <div className="relative min-h-0 flex-1">
        <FlatDrawing
          label={`Weakest section of ${name}: ${drawn.pieces.move.length} lines`}
          pieces={drawn.pieces}
          colours={drawn.colours}
          box={drawn.box}
          done={drawn.pieces.move.length}
          picked={undefined}
          onPick={() => {}}
          view={view}
        />
      </div>
      <div className="px-3 pb-1">
        <KeyStrip of={drawn.key} />
      </div>
    </div>
  )
}

function boxOf({ ends, width }: Pieces): FlatBox {
  const low: [number, number] = [Infinity, Infinity]
  const high: [number, number] = [-Infinity, -Infinity]
  for (let i = 0; i < width.length; i++) {
    for (const corner of [0, 2]) {
      for (const axis of [0, 1] as const) {
        const at = ends[4 * i + corner + axis]!
        low[axis] = Math.min(low[axis], at - width[i]! / 2)
        high[axis] = Math.max(high[axis], at + width[i]! / 2)
      }
    }
  }
  return width.length > 0 ? { low, high } : { low: [0, 0], high: [1, 1] }
}
