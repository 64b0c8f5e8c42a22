import type { LineupContent } from '@sable/contract/lineup'
import { useQuery } from '@tanstack/react-query'
import { ChevronDown } from 'lucide-react'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { lineupsQuery } from '../../api/lineups'
import { useBench } from '../../desk/bench'
import { useDesk } from '../../desk/deskStore'
import { nextName } from '../../desk/edits'
import { IconButton } from '../../ui/Button'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../../ui/Menu'
import { firstCandidate } from './firstCandidate'
import { RemoveLineup } from './RemoveLineup'
import { useBeginLineup } from './useBeginLineup'

/** Other lineups to open, and what can be done with this one. */
export function LineupMenu() {
  const { content, part } = useBench()
  const navigate = useNavigate()
  const lineups = useQuery(lineupsQuery)
  const id = useDesk((desk) => desk.lineupId)
  const begin = useBeginLineup()
  const [removing, setRemoving] = useState(false)
  const { placement, purpose } = content
  const copyOf = (): LineupContent => ({
    ...content,
    name: nextName(content.name, lineups.data?.map(({ name }) => name) ?? []),
    candidates: content.candidates.map((candidate) => ({ ...candidate, id: crypto.randomUUID() })),
  })
  return (
    <>
      <Menu
        trigger={
          <IconButton label="Lineups">
            <ChevronDown className="size-4" />
          </IconButton>
        }
      >
        <MenuLabel>Open</MenuLabel>
        {lineups.data?.map((lineup) => (
          <MenuItem key={lineup.id} current={lineup.id === id} onSelect={() => void navigate(`/bench/${lineup.id}/ledger`)}>
            <span className="max-w-72 truncate">{lineup.name}</span>
          </MenuItem>
        ))}
        <MenuSeparator />
        <MenuItem onSelect={() => void begin({ name: part.name, partId: part.id, placement, purpose, candidates: [firstCandidate()] })}>
          New lineup of this part
        </MenuItem>
        <MenuItem onSelect={() => void begin(copyOf())}>Copy of this lineup</MenuItem>
        <MenuItem onSelect={() => setRemoving(true)}>Remove this lineup …</MenuItem>
      </Menu>
      {removing && id && <RemoveLineup id={id} onEnd={() => setRemoving(false)} />}
    </>
  )
}
