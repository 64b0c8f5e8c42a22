import { useEffect, useRef } from 'react'
import { useTheme } from '../ui/theme'
import type { DrawnFace, Elevation } from './elevation'

/** Height of a tooth where a drawing is broken off, px. */
const BREAK = 7

/** The body itself, in the ledger's ink. */
export function PaintedThing({
  elevation,
  width,
  height,
  toX,
  toY,
  from,
}: {
  elevation: Elevation
  width: number
  height: number
  toX: (mm: number) => number
  toY: (mm: number) => number
  /** Left of this it is broken off, px; 0 where the whole is drawn. */
  from: number
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const theme = useTheme((state) => state.theme)
  // biome-ignore lint/correctness/useExhaustiveDependencies: the scale follows from size and elevation.
  useEffect(() => {
    const own = canvas.current
    const context = own?.getContext('2d')
    if (!own || !context) return
    const ratio = window.devicePixelRatio || 1
    own.width = Math.round(width * ratio)
    own.height = Math.round(height * ratio)
    context.scale(ratio, ratio)
    const ink = theme === 'dark' ? '#cbbfb0' : '#4a3f34'
    context.lineWidth = 0.9
    context.lineJoin = 'round'
    if (from > 0) {
      context.beginPath()
      // The zigzag of a part that goes on.
      context.moveTo(width, 0)
      for (let y = 0; y <= height; y += BREAK) context.lineTo(from + (y % (2 * BREAK) === 0 ? 0 : 5), y)
      context.lineTo(width, height)
      context.clip()
    }
    const cornersOf = ({ xy }: DrawnFace) => [0, 2, 4].map((k) => [toX(xy[k]!), toY(xy[k + 1]!)] as const)
    for (const sheet of elevation.sheets) {
      for (const face of sheet) {
        context.beginPath()
        for (const [x, y] of cornersOf(face)) context.lineTo(x, y)
        context.closePath()
        // Warm greys: what faces the eye is lightest.
        const light = theme === 'dark' ? 26 + 30 * face.shade : 188 + 34 * face.shade
        context.fillStyle = `rgb(${light + 6} ${light + 1} ${light - 5})`
        context.strokeStyle = context.fillStyle
        context.fill()
        context.stroke()
      }
      context.strokeStyle = ink
      for (const face of sheet) {
        const at = cornersOf(face)
        face.edges.forEach((isEdge, k) => {
          if (!isEdge) return
          context.beginPath()
          context.moveTo(...at[k]!)
          context.lineTo(...at[(k + 1) % 3]!)
          context.stroke()
        })
      }
    }
  }, [elevation, width, height, theme, from])
  return <canvas ref={canvas} style={{ width, height }} className="absolute inset-0" aria-hidden />
}
