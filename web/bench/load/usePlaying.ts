import { useEffect, useState } from 'react'

/** Of a movement to and fro, seconds. */
const PERIOD_S = 2.8

/** A share that swings softly from 0 to 1 and back while it plays, and is 1 while it does not. */
export function usePlaying(): { readonly share: number; readonly isPlaying: boolean; readonly toggle: () => void } {
  const [isPlaying, setPlaying] = useState(false)
  const [share, setShare] = useState(1)
  useEffect(() => {
    if (!isPlaying) return setShare(1)
    let frame = 0
    const from = performance.now()
    const draw = (now: number): void => {
      setShare((1 - Math.cos((2 * Math.PI * (now - from)) / 1000 / PERIOD_S)) / 2)
      frame = requestAnimationFrame(draw)
    }
    frame = requestAnimationFrame(draw)
    return () => cancelAnimationFrame(frame)
  }, [isPlaying])
  return { share, isPlaying, toggle: () => setPlaying((before) => !before) }
}
