import type { TowerTruth } from '@sable/contract/trainer'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answerTower, towerQuery } from '../api/trainer'
import { Button } from '../ui/Button'
import { Loading } from '../ui/Loading'
import { NumberField } from '../ui/NumberField'
import { DrawnTowerPicture } from './DrawnTowerPicture'
import { scores } from './trainerScores'

const asks = {
  temperature: { ask: 'Where is the middle of what prints clean?', how: 'Gaps where it is too cold, strings where it is too hot.' },
  flow: { ask: 'At which flow does it begin to fail?', how: 'The first band with a hole. The hot end fails at it or a little before.' },
} as const

/** Towers of known truth, to learn reading on: nothing of it is written to any record. */
export function Trainer() {
  const [seed, setSeed] = useState(() => scores.next())
  const tower = useQuery({ ...towerQuery(seed), staleTime: Number.POSITIVE_INFINITY })
  const [value, setValue] = useState<number>()
  const [told, setTold] = useState<TowerTruth>()
  if (!tower.data) return <Loading what="a tower" failed={tower.failureReason} />
  const { kind, unit } = tower.data
  const off = (of: number, truth: number): string =>
    kind === 'flow' ? `${(100 * (of / truth - 1)).toFixed(0)} %` : `${(of - truth).toFixed(1)} ${unit}`
  const answer = async (): Promise<void> => {
    if (value === undefined) return
    const truth = await answerTower(seed, value)
    scores.add({ seed, kind, off: kind === 'flow' ? Math.abs(value / truth.truth - 1) : Math.abs(value - truth.truth) })
    setTold(truth)
  }
  const next = (): void => {
    setSeed(scores.next())
    setValue(undefined)
    setTold(undefined)
  }
  const past = scores.all().filter((one) => one.kind === kind)
  return (
    <section aria-label="Trainer" className="flex min-h-0 flex-1">
      <div className="min-h-0 min-w-0 flex-1 overflow-hidden p-5">
        <DrawnTowerPicture tower={tower.data} />
      </div>
      <aside className="w-[25rem] shrink-0 space-y-3 overflow-auto border-l border-line p-5 text-[12.5px]">
        <h2 className="text-[15px] font-semibold">{asks[kind].ask}</h2>
        <p className="text-muted">{asks[kind].how} Nobody but its maker knows; nothing here goes to your records.</p>
        <NumberField
          label="You read"
          unit={unit}
          value={value}
          problem="a number"
          onCommit={(typed) => {
            if (typed !== undefined && !(typed > 0 && typed < 1000)) return false
            setValue(typed)
            return true
          }}
        />
        {told ? (
          <>
            <dl className="space-y-1" aria-label="The truth">
              <Line label="It is" value={`${told.truth.toFixed(1)} ${unit}`} />
              <Line label="You were off by" value={value === undefined ? '–' : off(value, told.truth)} />
              <Line label="The trial’s rule is off by" value={told.rule === undefined ? '–' : off(told.rule, told.truth)} />
            </dl>
            <Button tone="main" onClick={next}>
              Another tower
            </Button>
          </>
        ) : (
          <Button tone="main" disabled={value === undefined} onClick={() => void answer()}>
            How far off is it?
          </Button>
        )}
        {past.length > 0 && <Past off={past.map((one) => one.off)} kind={kind} unit={unit} />}
      </aside>
    </section>
  )
}

const Line = ({ label, value }: { label: string; value: string }) => (
  <div className="flex justify-between border-b border-line/60 py-0.5">
    <dt className="text-muted">{label}</dt>
    <dd className="figure">{value}</dd>
  </div>
)

/** How the reader has come on: the middle of the first towers against that of the last. */
function Past({ off, kind, unit }: { off: readonly number[]; kind: 'temperature' | 'flow'; unit: string }) {
  const shown = (value: number): string => (kind === 'flow' ? `${Math.round(100 * value)} %` : `${value.toFixed(1)} ${unit}`)
  const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!
  const some = Math.min(5, off.length)
  return (
    <p className="text-muted">
      {off.length} {off.length === 1 ? 'tower' : 'towers'} read; off by{' '}
      <span className="figure text-ink">{shown(middle(off.slice(-some)))}</span> of late
      {off.length > some && (
        <>
          , by <span className="figure">{shown(middle(off.slice(0, some)))}</span> at first
        </>
      )}
      .
    </p>
  )
}
