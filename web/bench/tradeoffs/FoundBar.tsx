import type { Search } from '@sable/contract/search'
import { figureOf } from '@sable/core/figures/figures'
import { figureIds } from '@sable/core/figures/table/figure'
import type { Objective } from '@sable/core/search/figures'
import { median } from 'd3-array'
import { Table2 } from 'lucide-react'
import { Button, IconButton } from '../../ui/Button'
import { momentOf } from '../../ui/dates'
import { Menu, MenuItem, MenuSeparator } from '../../ui/Menu'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { useAddress } from '../../ui/useAddress'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { type Point, withLimit } from './plot'
import type { Found } from './useFound'
import { isRunning } from './useSearch'

interface Props {
  readonly search: Search
  readonly searches: readonly Search[]
  readonly found: Pick<Found, 'axes' | 'points' | 'limits' | 'setLimits'>
  /** Of the lineup. */
  readonly name: string
  readonly onTable: () => void
  readonly onRemove: () => void
}

const figures = figureIds.map((id) => ({ id, name: figureOf[id].label }))

/** What is drawn of a search, by which limits, and which search. */
export function FoundBar({ search, searches, found, name, onTable, onRemove }: Props) {
  const { points, limits, setLimits } = found
  const { x, y, colour, size } = found.axes
  const address = useAddress()
  const running = isRunning(search)
  return (
    <ViewBar>
      <Select label="Across" name="Across" value={x.figure} of={figures} onChange={(to) => address.set({ x: to })} />
      <Select label="Up" name="Up" value={y.figure} of={figures} onChange={(to) => address.set({ y: to })} />
      <Select label="Colour" value={colour.figure} of={figures} onChange={(to) => address.set({ colour: to })} />
      <Select
        label="Size"
        value={size?.figure ?? ''}
        of={[{ id: '', name: 'alike' }, ...figures]}
        onChange={(to) => address.set({ size: to })}
      />
      <Menu trigger={<Button>Limits</Button>}>
        {[x, y, colour]
          .filter((axis, i, all) => all.findIndex(({ figure }) => figure === axis.figure) === i)
          .map((axis) => {
            const has = limits.some(({ figure }) => figure === axis.figure)
            return (
              <MenuItem key={axis.figure} onSelect={() => setLimits(withLimit(limits, axis, has ? undefined : middleOf(points, axis)))}>
                {has ? 'No limit of' : 'Limit'} {figureOf[axis.figure].label.toLowerCase()}
              </MenuItem>
            )
          })}
        <MenuSeparator />
        <MenuItem onSelect={() => setLimits(search.spec.limits)}>Those of the part’s purpose</MenuItem>
      </Menu>
      <BarGap />
      <SaveMenu name={`trade-offs of ${name}`} />
      <IconButton label="Table of the variants" disabled={points.length === 0} onClick={onTable}>
        <Table2 className="size-4" />
      </IconButton>
      <Menu align="end" trigger={<Button>Searches</Button>}>
        {searches.map((one) => (
          <MenuItem
            key={one.id}
            current={one.id === search.id}
            hint={one.state}
            onSelect={() => address.set({ search: one.id, limits: undefined, variant: undefined })}
          >
            {momentOf(one.createdAt)}, {one.of} variants
          </MenuItem>
        ))}
        <MenuSeparator />
        <MenuItem onSelect={onRemove}>Remove this search</MenuItem>
      </Menu>
      <Button tone={running ? 'quiet' : 'main'} onClick={() => address.set({ search: 'new', limits: undefined, variant: undefined })}>
        New search
      </Button>
    </ViewBar>
  )
}

const middleOf = (points: readonly Point[], { figure }: Objective): number => median(points, ({ figures }) => figures[figure]) ?? 0
