import type { Candidate } from '@sable/contract/lineup'
import { useState } from 'react'
import { OverridesDialog } from './OverridesDialog'

/** The last group of the ledger: places of the part where other values hold. */
export function OverrideRow({ candidates }: { candidates: readonly Candidate[] }) {
  const [openId, setOpenId] = useState<string>()
  const open = candidates.find(({ id }) => id === openId)
  const base = JSON.stringify(candidates[0]?.overrides ?? [])
  return (
    <tbody>
      <tr>
        <th
          scope="rowgroup"
          colSpan={candidates.length + 1}
          className="h-[25px] border-b border-line p-0 text-left align-bottom font-normal"
        >
          <span className="sticky left-0 inline-block px-[22px] pb-0.5">
            <span className="font-semibold text-lantern-ink">Overrides</span>
            <span className="ml-2 text-[12px] text-muted">where other values hold</span>
          </span>
        </th>
      </tr>
      <tr data-row="overrides">
        <th scope="row" className="sticky left-0 z-10 border-b border-line/60 bg-ground py-0 pr-2 pl-[22px] text-left font-normal">
          Places
        </th>
        {candidates.map(({ id, name, overrides }) => (
          <td key={id} className="h-[22px] border-b border-l border-line/60 p-0">
            <button
              type="button"
              aria-label={`Overrides of ${name}`}
              onClick={() => setOpenId(id)}
              className="flex h-full w-full items-center gap-2 px-3 text-right hover:bg-glow"
            >
              <span aria-hidden className="w-3 text-[12px] text-lantern-ink">
                {JSON.stringify(overrides) === base ? '' : '◆'}
              </span>
              <span className={overrides.length === 0 ? 'ml-auto text-muted' : 'ml-auto truncate'}>
                {overrides.length === 0 ? 'none' : overrides.map((override) => override.name).join(', ')}
              </span>
            </button>
          </td>
        ))}
      </tr>
      {open && <OverridesDialog candidate={open} onClose={() => setOpenId(undefined)} />}
    </tbody>
  )
}
