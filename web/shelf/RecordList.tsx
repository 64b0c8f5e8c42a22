import type { Shelf, ShelfKind } from '@sable/contract/shelf'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef } from 'react'
import { NavLink } from 'react-router'
import { kindNames } from './kindNames'
import { Reel } from './Reel'
import type { KeptRecord } from './shelfWriter'
import { remainingOn, summaryOf } from './summaries'

const ROW = 46

/** The records of a kind. Only those in sight are there, so that thousands of spools scroll as a few do. */
export function RecordList({
  kind,
  records,
  shelf,
  openKey,
}: {
  kind: ShelfKind
  records: readonly KeptRecord[]
  shelf: Shelf
  openKey: string | undefined
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const rows = useVirtualizer({ count: records.length, getScrollElement: () => scroller.current, estimateSize: () => ROW, overscan: 8 })
  const openAt = records.findIndex(({ key }) => key === openKey)
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is brought into sight once, when it is opened.
  useEffect(() => {
    if (openAt >= 0) rows.scrollToIndex(openAt, { align: 'auto' })
  }, [openKey])
  if (records.length === 0) {
    return (
      <p className="min-h-0 flex-1 p-4 text-[12.5px] text-muted">
        {kind === 'profiles'
          ? 'No profiles yet. Keep one from the menu of a column on the bench, or add one here.'
          : `No ${kindNames[kind][0].toLowerCase()} here.`}
      </p>
    )
  }
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto py-1">
      <ul className="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const one = records[index]!
          return (
            <li
              key={one.key}
              aria-setsize={records.length}
              aria-posinset={index + 1}
              className="absolute inset-x-0"
              style={{ height: ROW, transform: `translateY(${start}px)` }}
            >
              <NavLink
                to={`/shelf/${kind}/${one.key}`}
                className="flex h-full items-center gap-2.5 border-l-2 border-transparent px-3 hover:bg-raised aria-[current=page]:border-lantern aria-[current=page]:bg-raised"
              >
                {kind === 'spools' && <SpoolMark shelf={shelf} spoolKey={one.key} />}
                <span className="min-w-0 flex-1">
                  <span className="flex items-baseline gap-2">
                    <span className="truncate text-[13px] font-medium">{one.name}</span>
                    {one.archived && <span className="text-[12px] text-muted">archived</span>}
                  </span>
                  <span className="block truncate text-[12px] text-muted">{summaryOf(kind, one, shelf)}</span>
                </span>
              </NavLink>
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function SpoolMark({ shelf, spoolKey }: { shelf: Shelf; spoolKey: string }) {
  const spool = shelf.spools.find(({ key }) => key === spoolKey)
  if (!spool) return null
  const { grams } = remainingOn(spool, shelf)
  return <Reel share={grams / spool.netG} color={spool.color} size={34} label={`${Math.round((100 * grams) / spool.netG)} % left`} />
}
