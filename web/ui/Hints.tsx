import { Popper } from 'radix-ui/internal'
import { useEffect, useId, useState } from 'react'
import { createPortal } from 'react-dom'

interface Hint {
  readonly of: Element
  readonly says: string
}

/** How long a pointer rests, or the keyboard stays, before a hint is shown, ms. */
const REST_MS = 450

/**
 * Shows what an element's `data-hint` says while a pointer rests on it, or the keyboard is on it. One for the whole page: a ledger has
 * thousands of cells, and a tooltip of its own in each would cost more than the cell. It is no layer that Escape would close first.
 */
export function Hints() {
  const [hint, setHint] = useState<Hint>()
  const id = useId()

  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined
    let over: Element | null = null
    const rest = (on: EventTarget | null, isFocus: boolean): void => {
      const of = on instanceof Element ? on.closest('[data-hint]') : null
      // The keyboard passes over cells that hold a hint; only what is itself focused tells its own.
      if (isFocus && (of !== on || !of?.matches(':focus-visible'))) return
      if (of === over) return
      leave()
      over = of
      if (of) timer = setTimeout(() => setHint({ of, says: of.getAttribute('data-hint') ?? '' }), REST_MS)
    }
    const leave = (): void => {
      clearTimeout(timer)
      over = null
      setHint(undefined)
    }
    const listen = new AbortController()
    const { signal } = listen
    document.addEventListener('pointerover', ({ target, pointerType }) => pointerType !== 'touch' && rest(target, false), { signal })
    document.addEventListener('focusin', ({ target }) => rest(target, true), { signal })
    document.addEventListener('focusout', leave, { signal })
    document.addEventListener('pointerdown', leave, { signal, capture: true })
    document.addEventListener('keydown', leave, { signal, capture: true })
    document.addEventListener('scroll', leave, { signal, capture: true })
    document.documentElement.addEventListener('pointerleave', leave, { signal })
    return () => {
      leave()
      listen.abort()
    }
  }, [])

  useEffect(() => {
    if (!hint) return
    const before = hint.of.getAttribute('aria-describedby')
    hint.of.setAttribute('aria-describedby', before ? `${before} ${id}` : id)
    return () => (before ? hint.of.setAttribute('aria-describedby', before) : hint.of.removeAttribute('aria-describedby'))
  }, [hint, id])

  if (!hint || hint.says === '' || !hint.of.isConnected) return null
  return (
    <Popper.Root>
      <Popper.Anchor virtualRef={{ current: hint.of }} />
      {createPortal(
        <Popper.Content
          id={id}
          role="tooltip"
          side="bottom"
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="pointer-events-none z-[70] max-w-72 rounded border border-strong bg-raised px-2 py-1 text-[12px] whitespace-pre-line text-ink shadow-md"
        >
          {hint.says}
        </Popper.Content>,
        document.body,
      )}
    </Popper.Root>
  )
}
