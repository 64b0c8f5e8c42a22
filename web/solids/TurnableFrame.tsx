import type { KeyboardEvent, ReactNode } from 'react'
import { type SolidView, turnBy } from './SolidDrawing'

/** Degrees that one press of an arrow turns, and what plus and minus come nearer by. */
const TURN = 15
const NEARER = 1.25

const turns: Readonly<Record<string, (view: SolidView) => void>> = {
  ArrowLeft: (view) => turnBy(view, -TURN, 0),
  ArrowRight: (view) => turnBy(view, TURN, 0),
  ArrowUp: (view) => turnBy(view, 0, TURN),
  ArrowDown: (view) => turnBy(view, 0, -TURN),
  '+': (view) => turnBy(view, 0, 0, NEARER),
  '-': (view) => turnBy(view, 0, 0, 1 / NEARER),
  0: (view) => view.goHome(),
}

/** Around a drawing of a solid: keys turn it, as dragging does. */
export function TurnableFrame({ name, view, children }: { name: string; view: SolidView; children: ReactNode }) {
  const onKeyDown = (event: KeyboardEvent): void => {
    // Buttons within have their own use for keys.
    const turn = event.target === event.currentTarget ? turns[event.key] : undefined
    if (!turn) return
    turn(view)
    event.preventDefault()
  }
  return (
    // biome-ignore lint/a11y/useSemanticElements: it is no set of fields, but keys work on it as a whole.
    <div
      // biome-ignore lint/a11y/noNoninteractiveTabindex: arrows turn the part, as dragging does.
      tabIndex={0}
      role="group"
      aria-label={`${name}: arrows turn the part, plus and minus come nearer, 0 goes back`}
      className="relative min-h-0 min-w-0 flex-1"
      onKeyDown={onKeyDown}
    >
      {children}
    </div>
  )
}
