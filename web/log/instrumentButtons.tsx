import type { Axis, InstrumentName } from '@sable/contract/instruments'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { instrumentsQuery, readCaliper, readScale } from '../api/instruments'
import { Button } from '../ui/Button'
import type { Refusal } from '../ui/Notice'

interface Taking {
  /** What is on the scale, or in the caliper. */
  readonly name: string
  readonly onRefusal: (refusal: Refusal) => void
}

/** Takes what the scale shows, g; nothing where none is connected. */
export const WeighButton = ({ onGrams, ...taking }: Taking & { onGrams: (grams: number) => void }) => (
  <TakeButton of="scale" verb="Weigh" busyWord="Weighing …" read={readScale} onValue={onGrams} {...taking} />
)

/** Takes what the caliper shows along an axis, mm; nothing where none is connected. */
export const CaliperButton = ({ axis, onMm, ...taking }: Taking & { axis: Axis; onMm: (mm: number) => void }) => (
  <TakeButton of="caliper" verb="Measure" busyWord="Measuring …" read={() => readCaliper(axis)} onValue={onMm} {...taking} />
)

function TakeButton({
  of,
  verb,
  busyWord,
  name,
  read,
  onValue,
  onRefusal,
}: Taking & { of: InstrumentName; verb: string; busyWord: string; read: () => Promise<number>; onValue: (value: number) => void }) {
  const { data } = useQuery(instrumentsQuery)
  const [busy, setBusy] = useState(false)
  if (!data?.[of]) return null
  const take = async (): Promise<void> => {
    setBusy(true)
    try {
      onValue(await read())
    } catch (error) {
      onRefusal(asRefusal(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <Button aria-label={`${verb} ${name}`} disabled={busy} onClick={() => void take()}>
      {busy ? busyWord : verb}
    </Button>
  )
}
