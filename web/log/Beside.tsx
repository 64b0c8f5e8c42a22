import type { Print, PrintLine } from '@sable/contract/prints'
import { sincePrint } from '@sable/core/log/sincePrint'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { printQuery } from '../api/prints'
import { dayOf } from '../ui/dates'
import { Select } from '../ui/Select'

/** What was changed since an earlier print of the same thing, and whether that made it better. */
export function Beside({ print: { line, frozen, kept }, lines }: { print: Print; lines: readonly PrintLine[] }) {
  const earlier = lines.filter((one) => one.id !== line.id && one.name === line.name && one.plannedAt < line.plannedAt)
  const [chosen, choose] = useState<string>()
  const id = chosen ?? kept?.outcome.against?.print ?? earlier[0]?.id
  const other = useQuery({ ...printQuery(id ?? ''), enabled: id !== undefined })
  if (id === undefined) return null
  const verdict = kept?.outcome.against?.print === id ? kept.outcome.against.verdict : undefined
  const changed = other.data && sincePrint(other.data.frozen, frozen)
  return (
    <section aria-label="Since an earlier print" className="text-[12.5px]">
      <h3 className="mb-1 flex items-center gap-2 font-semibold">
        Changed since
        <Select
          label=""
          name="Earlier print"
          value={id}
          of={(earlier.some((one) => one.id === id) ? earlier : [...earlier, { id, plannedAt: '', profile: 'the stated print' }]).map(
            (one) => ({
              id: one.id,
              name: `${dayOf(one.plannedAt)} ${one.profile}`.trim(),
            }),
          )}
          onChange={choose}
        />
        <Link to={{ pathname: `/log/${id}`, search: window.location.search }} className="font-normal text-muted underline decoration-line">
          open it
        </Link>
        {verdict && (
          <span className="ml-auto font-normal text-lantern-ink">{verdict === 'same' ? 'came out the same' : `came out ${verdict}`}</span>
        )}
      </h3>
      {changed?.length === 0 && <p className="text-muted">Nothing: both were made alike.</p>}
      {changed && changed.length > 1 && verdict && verdict !== 'same' && (
        <p className="mb-1 border-l-2 border-worse pl-2 text-[12px] text-worse">
          {changed.length} things were changed at once: which of them did it is not known.
        </p>
      )}
      <table className="w-full">
        <tbody>
          {changed?.map(({ label, was, is }) => (
            <tr key={label} className="border-b border-line/60">
              <th className="py-0.5 text-left font-normal text-muted">{label}</th>
              <td className="figure text-right text-muted">{was}</td>
              <td className="figure pl-3 text-right">{is}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
