import { useBench } from '../../desk/bench'
import { Button } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { download, fileNameFrom } from '../../ui/download'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { useAddress } from '../../ui/useAddress'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { measures } from './measures'
import { trailCsv } from './trailWords'
import { useSortByGain } from './useSortByGain'
import type { Trail } from './useTrail'

/** Between which candidates a trail leads, by what it is measured, and how its steps are ordered. */
export function TrailBar({ trail }: { trail: Trail }) {
  const { candidates } = useBench().content
  const { set } = useAddress()
  const sorting = useSortByGain(trail)
  const { from, to, measure, known, solved } = trail
  const name = `steps from ${from.name} to ${to.name}`
  return (
    <ViewBar>
      <Select label="From" name="From candidate" value={from.id} of={candidates} onChange={(id) => set({ from: id })} />
      <Select label="to" name="To candidate" value={to.id} of={candidates} onChange={(id) => set({ to: id })} />
      <Select
        label="measured by"
        name="Measured by"
        value={measure.id}
        of={measures.map(({ id, label }) => ({ id, name: label.toLowerCase() }))}
        onChange={(id) => set({ by: id })}
      />
      <Checkbox checked={trail.averaged} onChange={(on) => set({ average: on ? 'on' : undefined })}>
        average over orders
      </Checkbox>
      <BarGap />
      {known.done < known.wanted && (
        <span role="status" className="figure text-[12px] text-muted">
          {known.done} of {known.wanted}
        </span>
      )}
      {known.done === known.wanted && solved.wanted > 0 && (
        <span
          role="status"
          className="text-[12px] text-muted"
          data-hint="What a part bears is solved for each step on cells no wider than a line. Averages over orders go by sections."
        >
          {solved.isSolved
            ? 'strength solved'
            : solved.done === solved.wanted
              ? 'strength by sections: one is not solved'
              : `strength by sections; solved ${solved.done} of ${solved.wanted}`}
        </span>
      )}
      <SaveMenu name={name} csv={() => download(`${fileNameFrom(name)}.csv`, trailCsv(trail), 'text/csv')} />
      <span className="text-[12.5px] text-muted">Order</span>
      <Button onClick={() => trail.put(undefined)}>As practised</Button>
      {sorting.share === undefined ? (
        <Button onClick={() => void sorting.start()}>Most gain first</Button>
      ) : (
        <Button onClick={sorting.stop}>
          Stop <span className="figure text-muted">{Math.round(100 * sorting.share)} %</span>
        </Button>
      )}
    </ViewBar>
  )
}
