import { useEffect, useRef, useState } from 'react'

/** How many seconds of printing pass in one of watching. */
export const paces = [1, 5, 20, 60, 240] as const

export interface Playhead {
  /** Seconds into the layer; at its end, everything is done. */
  readonly seconds: number
  readonly playing: boolean
  readonly pace: number
  readonly setSeconds: (seconds: number) => void
  readonly setPace: (pace: number) => void
  readonly toggle: () => void
}

/**
 * Time within a layer, and on into the next one while it plays. A layer that is gone to by hand is shown as it is when done.
 *
 * @param layerTime s, of the layer that is shown
 * @param onNext goes to the next layer; returns false when there is none
 */
export function usePlayhead(layer: number, layerTime: number, onNext: () => boolean): Playhead {
  const [seconds, setSeconds] = useState(layerTime)
  const [playing, setPlaying] = useState(false)
  const [pace, setPace] = useState<number>(20)
  const state = useRef({ seconds, layerTime, onNext, carried: false })
  state.current.layerTime = layerTime
  state.current.onNext = onNext

  // biome-ignore lint/correctness/useExhaustiveDependencies: another layer or another plan of it begins anew.
  useEffect(() => {
    const { carried } = state.current
    state.current.carried = false
    state.current.seconds = carried ? 0 : layerTime
    setSeconds(state.current.seconds)
  }, [layer, layerTime])

  useEffect(() => {
    if (!playing) return
    let last = performance.now()
    let frame = requestAnimationFrame(function tick(now) {
      const own = state.current
      own.seconds += ((now - last) / 1000) * pace
      last = now
      if (own.seconds >= own.layerTime) {
        own.carried = true
        if (!own.onNext()) {
          own.carried = false
          own.seconds = own.layerTime
          setPlaying(false)
        }
      }
      setSeconds(own.seconds)
      frame = requestAnimationFrame(tick)
    })
    return () => cancelAnimationFrame(frame)
  }, [playing, pace])

  const put = (to: number): void => {
    state.current.seconds = to
    setSeconds(to)
  }
  return {
    seconds,
    playing,
    pace,
    setSeconds: put,
    setPace,
    toggle: () => {
      if (!playing && state.current.seconds >= layerTime) put(0)
      setPlaying(!playing)
    },
  }
}
