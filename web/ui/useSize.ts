import { type RefObject, useLayoutEffect, useState } from 'react'

/** Size of an element in CSS pixels, followed as it changes. */
export function useSize(element: RefObject<HTMLElement | null>): { readonly width: number; readonly height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 })
  useLayoutEffect(() => {
    if (!element.current) return
    const watcher = new ResizeObserver(([entry]) => entry && setSize({ width: entry.contentRect.width, height: entry.contentRect.height }))
    watcher.observe(element.current)
    return () => watcher.disconnect()
  }, [element])
  return size
}
