import type { DrawnMoves } from '@sable/core/views/drawnMoves'
import { type ReactNode, useMemo, useState, useSyncExternalStore } from 'react'
import { type ColouringName, coloursOf, type Key } from '../../charts/colourings'
import { type FlatBox, FlatDrawing, type FlatView, zoomBy } from '../../charts/FlatDrawing'
import { type CutAxis, doneAt, piecesOfCut, piecesOfLayer } from '../../solids/pieces'
import { MoveFacts } from './MoveFacts'

/** How the part is cut: along a layer, or upright across an axis at a place. */
export type Cut = { readonly kind: 'layer'; readonly layer: number } | { readonly kind: CutAxis; readonly at: number }

interface Props {
  readonly name: string
  readonly moves: DrawnMoves
  readonly cut: Cut
  readonly by: ColouringName
  readonly colourKey: Key
  readonly only: number | undefined
  readonly travels: boolean
  /** s into the layer. */
  readonly seconds: number
  readonly box: FlatBox
  readonly view: FlatView
  /** Drawn over it. */
  readonly children?: ReactNode
}

/** One candidate's layer or cut, drawn. A click or an arrow key picks a line and tells what is known of it. */
export function LayerDrawing({ name, moves, cut, by, colourKey, only, travels, seconds, box, view, children }: Props) {
  const pieces = useMemo(
    () => (cut.kind === 'layer' ? piecesOfLayer(moves, cut.layer, travels) : piecesOfCut(moves, cut.kind, cut.at)),
    [moves, cut, travels],
  )
  const colours = useMemo(() => coloursOf(pieces, moves, by, colourKey, only), [pieces, moves, by, colourKey, only])
  const [picked, setPicked] = useState<number>()
  const shown = picked !== undefined && picked < pieces.move.length ? picked : undefined
  const done = cut.kind === 'layer' ? doneAt(pieces, moves, seconds) : pieces.move.length
  const what = cut.kind === 'layer' ? `layer ${cut.layer + 1}` : `cut across ${cut.kind.toUpperCase()} at ${cut.at.toFixed(1)} mm`
  return (
    // biome-ignore lint/a11y/useSemanticElements: it is no set of fields, but keys work on it as a whole.
    <div
      // biome-ignore lint/a11y/noNoninteractiveTabindex: arrows pick lines one after another, as a click does.
      tabIndex={0}
      role="group"
      aria-label={`${name}, ${what}: left and right pick a line, plus and minus zoom, 0 shows all`}
      className="relative min-h-0 min-w-0 flex-1 overflow-hidden"
      onKeyDown={(event) => {
        const { key } = event
        if (key === 'ArrowRight') setPicked(Math.min(pieces.move.length - 1, (shown ?? -1) + 1))
        else if (key === 'ArrowLeft') setPicked(Math.max(0, (shown ?? pieces.move.length) - 1))
        else if (key === '+') zoomBy(view, 1.4)
        else if (key === '-') zoomBy(view, 1 / 1.4)
        else if (key === '0') view.goHome()
        else if (key === 'Escape') setPicked(undefined)
        else return
        event.preventDefault()
      }}
    >
      <FlatDrawing
        label={`Drawing of ${name}, ${what}`}
        pieces={pieces}
        colours={colours}
        box={box}
        done={done}
        picked={shown}
        onPick={setPicked}
        view={view}
      />
      {children}
      <p className="pointer-events-none absolute top-2 left-3 text-[12.5px] font-medium">{name}</p>
      <ScaleBar view={view} />
      {pieces.move.length === 0 && <p className="absolute inset-0 m-auto h-5 text-center text-muted">Nothing is laid here.</p>}
      {shown !== undefined && <MoveFacts moves={moves} move={pieces.move[shown]!} onClose={() => setPicked(undefined)} />}
    </div>
  )
}

/** How long a round number of millimetres is in the drawing. */
function ScaleBar({ view }: { view: FlatView }) {
  const zoom = useSyncExternalStore(view.watch, () => view.now.zoom)
  const mm = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200].find((length) => length * zoom >= 50) ?? 500
  return (
    <p aria-hidden className="pointer-events-none absolute bottom-2 left-3 flex items-center gap-2 text-[12px] text-muted">
      <span className="h-1.5 border border-t-0 border-muted" style={{ width: mm * zoom }} />
      <span className="figure">{mm} mm</span>
    </p>
  )
}
