import type { Candidate } from '@sable/contract/lineup'
import { SquareDashed, Table2 } from 'lucide-react'
import { useNavigate } from 'react-router'
import { colouringLabels, colouringNames } from '../../charts/colourings'
import { useDesk } from '../../desk/deskStore'
import { Button, IconButton } from '../../ui/Button'
import { Checkbox } from '../../ui/Checkbox'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../../ui/Menu'
import { Popover } from '../../ui/Popover'
import { SaveMenu } from '../../ui/SaveMenu'
import { Select } from '../../ui/Select'
import { useAddress } from '../../ui/useAddress'
import { BarGap, ViewBar } from '../../ui/ViewBar'
import { ChoosePair, type Pair } from '../shell/CandidatePair'
import { type Jump, nextAbove, tracks } from './tracks'
import type { LayersChoice } from './useLayersChoice'

interface Props {
  readonly pair: Pair
  readonly candidates: readonly Candidate[]
  readonly choice: LayersChoice
  /** Candidates whose paths are still being laid. */
  readonly waiting: number
  readonly jumps: readonly Jump[]
  /** Height looked at, mm. */
  readonly z: number
  readonly onZ: (z: number) => void
  readonly onColouring: () => void
  readonly onCut: () => void
  readonly onTable: () => void
}

/** What is shown of the layers, and where to go. */
export function LayersBar({ pair, candidates, choice, waiting, jumps, z, onZ, onColouring, onCut, onTable }: Props) {
  const address = useAddress()
  const navigate = useNavigate()
  const { set } = address
  const { by, axis, travels, byFeature } = choice
  const shown = choice.tracks.map(({ id }) => id)
  const marks = jumps.filter(({ id }) => id.startsWith('check '))
  return (
    <ViewBar>
      <ChoosePair pair={pair} candidates={candidates} address={address} />
      <Select
        label="Coloured by"
        value={by}
        of={colouringNames.map((id) => ({ id, name: colouringLabels[id] }))}
        onChange={(name) => {
          onColouring()
          set({ by: name === 'feature' ? undefined : name })
        }}
      />
      <Select
        label="Cut"
        value={axis ?? 'layer'}
        of={[
          { id: 'layer', name: 'along the layer' },
          { id: 'x', name: 'upright across X' },
          { id: 'y', name: 'upright across Y' },
        ]}
        onChange={(to) => {
          onCut()
          set({ at: undefined, cut: to === 'layer' ? undefined : to })
        }}
      />
      {!axis && (
        <Checkbox checked={travels} onChange={(to) => set({ travels: to ? 'on' : undefined })}>
          travels
        </Checkbox>
      )}
      <BarGap />
      {waiting > 0 && (
        <span role="status" className="text-[12px] text-muted">
          Laying the other …
        </span>
      )}
      <Menu align="end" trigger={<Button>Go to</Button>}>
        {jumps
          .filter(({ id }) => !id.startsWith('check '))
          .map(({ id, label, z: to }) => (
            <MenuItem key={id} hint={`${to.toFixed(1)} mm`} onSelect={() => onZ(to)}>
              {label}
            </MenuItem>
          ))}
        <MenuSeparator />
        <MenuLabel>{marks.length === 0 ? 'No risk has a height' : 'Risks'}</MenuLabel>
        {marks.map(({ id, label, z: to }) => (
          <MenuItem key={id} hint={`${to.toFixed(1)} mm`} onSelect={() => onZ(to)}>
            <span className="max-w-96 truncate">{label}</span>
          </MenuItem>
        ))}
        <MenuSeparator />
        <MenuItem
          hint={`a case, at ${z.toFixed(1)} mm`}
          onSelect={() => void navigate(`/faults/new?lineup=${useDesk.getState().lineupId}&candidate=${pair.of.id}&z=${z.toFixed(2)}`)}
        >
          What went wrong here …
        </MenuItem>
      </Menu>
      <Button disabled={marks.length === 0} onClick={() => onZ(nextAbove(marks, z)?.z ?? z)}>
        Next risk
      </Button>
      {!axis && (
        <Button aria-pressed={choice.places} onClick={() => set({ places: choice.places ? undefined : 'on' })}>
          <SquareDashed className="size-3.5" aria-hidden /> Places
        </Button>
      )}
      <Popover label="Tracks" width="w-60" trigger={<Button>Tracks</Button>}>
        <ul className="space-y-1 text-[12.5px]">
          {tracks.map(({ id, label, help }) => (
            <li key={id}>
              <Checkbox
                checked={shown.includes(id)}
                onChange={(to) => set({ tracks: (to ? [...shown, id] : shown.filter((own) => own !== id)).join(',') || 'time' })}
                help={help}
              >
                {label}
              </Checkbox>
            </li>
          ))}
          <li className="border-t border-line pt-1.5">
            <Checkbox checked={byFeature} onChange={(to) => set({ parts: to ? 'on' : undefined })}>
              Layer time by feature
            </Checkbox>
          </li>
        </ul>
      </Popover>
      <SaveMenu name={`layers of ${pair.of.name}`} />
      <IconButton label="Table of the layers" onClick={onTable}>
        <Table2 className="size-4" />
      </IconButton>
    </ViewBar>
  )
}
