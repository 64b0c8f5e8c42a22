import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { readScale, scaleQuery } from '../api/machines'
import { Button } from '../ui/Button'
import type { Refusal } from '../ui/Notice'

/** Takes what the scale shows; nothing where no scale is connected. */
export function WeighButton({
  name,
  onGrams,
  onRefusal,
}: {
  /** What lies on it. */
  name: string
  onGrams: (grams: number) => void
  onRefusal: (refusal: Refusal) => void
}) {
  const { data } = useQuery(scaleQuery)
  const [busy, setBusy] = useState(false)
  if (!data?.isThere) return null
  const weigh = async (): Promise<void> => {
    setBusy(true)
    try {
      onGrams((await readScale()).grams)
    } catch (error) {
      onRefusal(asRefusal(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <Button aria-label={`Weigh ${name}`} disabled={busy} onClick={() => void weigh()}>
      {busy ? 'Weighing …' : 'Weigh'}
    </Button>
  )
}
