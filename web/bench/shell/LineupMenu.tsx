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
import { SearchMenu } from '../../ui/SearchMenu'
import { RemovedLineups } from './RemovedLineups'
import { useBeginLineup } from './useBeginLineup'
import { useRemoveLineup } from './useRemoveLineup'

/** Other lineups to open, and what can be done with this one. */
export function LineupMenu() {
  const { content, part } = useBench()
  const navigate = useNavigate()
  const lineups = useQuery(lineupsQuery)
  const id = useDesk((desk) => desk.lineupId)
  const begin = useBeginLineup()
  const remove = useRemoveLineup()
  const [listing, setListing] = useState(false)
  const copyOf = (): LineupContent => ({
    ...content,
    name: nextName(content.name, lineups.data?.map(({ name }) => name) ?? []),
    candidates: content.candidates.map((candidate) => ({ ...candidate, id: crypto.randomUUID() })),
  })
  return (
    <>
      <SearchMenu
        label="Find a lineup"
        trigger={
          <IconButton label="Lineups">
            <ChevronDown className="size-4" />
          </IconButton>
        }
        items={lineups.data ?? []}
        current={id}
        onChoose={(chosen) => void navigate(`/bench/${chosen}/ledger`)}
        actions={[
          { name: 'New lineup …', run: () => void navigate('/bench/new') },
          { name: 'New lineup of this part …', run: () => void navigate(`/bench/new?part=${part.id}`) },
          { name: 'Copy of this lineup', run: () => void begin(copyOf()) },
          ...(id === undefined ? [] : [{ name: 'Remove this lineup', run: () => void remove(id) }]),
          { name: 'Removed lineups …', run: () => setListing(true) },
        ]}
      />
      {listing && <RemovedLineups onClose={() => setListing(false)} />}
    </>
  )
}
