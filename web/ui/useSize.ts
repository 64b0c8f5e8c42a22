import { type RefCallback, useLayoutEffect, useState } from 'react'

/** Size of an element in CSS pixels, followed as it changes; 0 until it is there. */
export function useSize(): { readonly ref: RefCallback<HTMLElement>; readonly width: number; readonly height: number } {
  const [element, setElement] = useState<HTMLElement | null>(null)
  const [size, setSize] = useState({ width: 0, height: 0 })
  useLayoutEffect(() => {
    if (!element) return
    const watcher = new ResizeObserver(([entry]) => entry && setSize({ width: entry.contentRect.width, height: entry.contentRect.height }))
    watcher.observe(element)
    return () => watcher.disconnect()
  }, [element])
  return { ref: setElement, ...size }
}
