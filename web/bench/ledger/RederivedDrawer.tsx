import type { Candidate } from '@sable/contract/lineup'
import { setupOf } from '@sable/contract/shelf'
import { definitionOf } from '@sable/core/profile/settings'
import { type Rederived, rederive } from '@sable/core/setup/rederive'
import { useMemo } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setValue } from '../../desk/edits'
import { Button } from '../../ui/Button'
import { Drawer } from '../../ui/Drawer'
import { formatValue } from './rows'

interface Props {
  /** As the candidate was. */
  readonly before: Candidate
  readonly candidate: Candidate
  readonly onClose: () => void
}

/** What another printer, nozzle, material or spool changed in a column, and what it left: each can be refused or taken. */
export function RederivedDrawer({ before, candidate, onClose }: Props) {
  const { shelf } = useBench()
  const changes = useMemo(() => {
    const [was, is] = [setupOf(before, shelf), setupOf(candidate, shelf)]
    return was && is ? rederive(was, is, before.values) : []
  }, [before, candidate, shelf])
  if (changes.length === 0) return null
  const followed = changes.filter(({ kind }) => kind === 'followed')
  const held = changes.filter(({ kind }) => kind === 'held')
  const put = (change: Rederived, value: number | string | undefined): void =>
    edit((content) => setValue(content, candidate.id, change.name, value))
  return (
    <Drawer title={`What changed in ${candidate.name}`} onClose={onClose}>
      {followed.length > 0 && (
        <section>
          <h3 className="text-[12.5px] font-semibold text-lantern-ink">Followed</h3>
          <Changes
            changes={followed}
            candidate={candidate}
            isDone={(change) => candidate.values[change.name] !== undefined}
            action={(change, text) => (candidate.values[change.name] === undefined ? `Keep ${text(change.from)}` : 'Follow after all')}
            onAct={(change) => put(change, candidate.values[change.name] === undefined ? change.from : undefined)}
          />
        </section>
      )}
      {held.length > 0 && (
        <section className="mt-4">
          <h3 className="text-[12.5px] font-semibold text-lantern-ink">Left as the profile says</h3>
          <Changes
            changes={held}
            candidate={candidate}
            isDone={(change) => candidate.values[change.name] === undefined}
            action={(change, text) =>
              candidate.values[change.name] === undefined ? `Back to ${text(change.from)}` : `Take ${text(change.to)}`
            }
            onAct={(change) => put(change, candidate.values[change.name] === undefined ? change.from : undefined)}
          />
        </section>
      )}
      <p className="mt-4 text-[12px] text-muted">After another nozzle or material, repeat the temperature tower.</p>
    </Drawer>
  )
}

function Changes({
  changes,
  isDone,
  action,
  onAct,
}: {
  changes: readonly Rederived[]
  candidate: Candidate
  isDone: (change: Rederived) => boolean
  action: (change: Rederived, text: (value: number | string) => string) => string
  onAct: (change: Rederived) => void
}) {
  return (
    <ul className="mt-1 divide-y divide-line/60 border-y border-line">
      {changes.map((change) => {
        const setting = definitionOf(change.name)
        const unit = setting.kind === 'number' && setting.unit !== '' ? ` ${setting.unit}` : ''
        const text = (value: number | string): string => `${formatValue(setting, value)}${unit}`
        return (
          <li key={change.name} className="py-1.5">
            <div className="flex items-baseline gap-2 text-[12.5px]">
              <span className="min-w-0 flex-1 truncate">{setting.label}</span>
              <span className={`figure ${isDone(change) ? 'line-through opacity-60' : ''}`}>
                {change.kind === 'followed' ? `${formatValue(setting, change.from)} → ${text(change.to)}` : text(change.from)}
              </span>
            </div>
            <div className="flex items-center gap-2">
              <span className="min-w-0 flex-1 text-[12px] text-muted">
                {change.kind === 'held' ? `would be ${text(change.to)}: ${change.why}` : change.why}
              </span>
              <Button className="h-6 shrink-0 px-2" onClick={() => onAct(change)}>
                {action(change, (value) => formatValue(setting, value))}
              </Button>
            </div>
          </li>
        )
      })}
    </ul>
  )
}
