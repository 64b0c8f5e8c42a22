import { useEffect, useState } from 'react'

/** A plan is made anew so often, ms. */
const EVERY = 5 * 60_000

/** The minute that it is, kept for some minutes: a plan that moved with every second could not be read. */
export function useNow(): Date {
  const [now, setNow] = useState(() => new Date(Math.floor(Date.now() / 60_000) * 60_000))
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date(Math.floor(Date.now() / 60_000) * 60_000)), EVERY)
    return () => clearInterval(timer)
  }, [])
  return now
}
