import type { Trial } from '@sable/contract/trials'
import type { Setup } from '@sable/core/setup/resolve'
import type { ReadTrial, Rung } from '@sable/core/trials/tally'
import { useMemo } from 'react'
import { dayOf } from '../ui/dates'
import { markOf } from './bandMark'
import { ThingDrawing } from './ThingDrawing'
import { trialRequest } from './trialRequest'
import { usePlanned } from './usePlanned'

interface Props {
  readonly rung: Rung
  /** The print that is being read. */
  readonly open: Trial
  readonly setup: Setup
  readonly active: number
  readonly onActive: (band: number) => void
}

/** The print that another one is held beside, where its kind asks for that: as it stood, and how it was read. */
export function PrintBefore(props: Props) {
  const reading = printBefore(props.rung, props.open)
  return reading && <Beside {...props} reading={reading} />
}

function Beside({ rung: { kind }, setup, reading, active, onActive }: Props & { reading: ReadTrial }) {
  const { spec, bands, readAt } = reading
  const request = useMemo(() => trialRequest(spec, setup), [spec, setup])
  const { mesh } = usePlanned(request)
  if (!mesh) return null
  return (
    <section aria-label="The print before" className="relative flex h-1/2 min-h-0 flex-col border-b border-line">
      <h3 className="absolute inset-x-0 top-0 px-4 pt-2 text-[12px] text-muted">
        The print before, read <span className="figure">{dayOf(readAt)}</span>:{' '}
        <span className="text-ink">
          {spec.bands.map(({ label }) => label).join(', ')} {kind.varied?.unit}
        </span>
      </h3>
      <ThingDrawing
        kind={kind}
        spec={spec}
        mesh={mesh}
        marks={spec.bands.map((_, i) => markOf(kind, bands[i]))}
        measured={[]}
        active={active}
        isWhole
        onActive={onActive}
        onDigit={() => {}}
      />
    </section>
  )
}

/** More bands than this are compared with each other, not with another print's. */
const FEW_BANDS = 2

/** The last print of as few bands that was read before this one was made. */
export const printBefore = ({ kind, readings }: Rung, { spec: { bands }, madeAt }: Trial): ReadTrial | undefined =>
  kind.questions.whole.some(({ id }) => id === 'pair') && bands.length <= FEW_BANDS
    ? readings.find(({ reading }) => reading.spec.bands.length === bands.length && reading.readAt < madeAt)?.reading
    : undefined
