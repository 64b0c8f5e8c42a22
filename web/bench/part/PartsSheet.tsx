import type { StoredPart } from '@sable/contract/part'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { partsQuery, setPartRemoved } from '../../api/parts'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'
import { dayOf } from '../../ui/dates'
import { Notice, type Refusal } from '../../ui/Notice'

interface Props {
  readonly parts: readonly StoredPart[]
  /** The one on the bench. */
  readonly current: string
  readonly onClose: () => void
}

/** Every part that is here: how large, since when, and taken away where no lineup uses it. */
export function PartsSheet({ parts, current, onClose }: Props) {
  const queries = useQueryClient()
  const [removed, setRemoved] = useState<StoredPart>()
  const [refusal, setRefusal] = useState<Refusal>()
  const set = async (part: StoredPart, isRemoved: boolean): Promise<void> => {
    try {
      setRefusal(undefined)
      queries.setQueryData(partsQuery.queryKey, await setPartRemoved(part.id, isRemoved))
      setRemoved(isRemoved ? part : undefined)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  return (
    <Sheet title="Parts" onClose={onClose}>
      {refusal && (
        <div className="mb-3">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {removed && (
        <p role="status" className="mb-3 flex items-center gap-3 rounded-md border border-line px-3 py-2">
          <span className="min-w-0 flex-1 truncate">“{removed.name}” was deleted. Its file is kept for a week.</span>
          <Button onClick={() => void set(removed, false)}>Undo</Button>
        </p>
      )}
      <table className="mt-1 w-full text-[12.5px]">
        <thead>
          <tr className="text-left text-[12px] text-muted">
            <th className="font-normal">Part</th>
            <th className="text-right font-normal">Size, mm</th>
            <th className="text-right font-normal">Triangles</th>
            <th className="text-right font-normal">File</th>
            <th className="text-right font-normal">Since</th>
            <th className="w-20" />
          </tr>
        </thead>
        <tbody>
          {parts.map((part) => (
            <tr key={part.id} className="border-t border-line/60">
              <td className="max-w-56 truncate py-1.5" data-hint={part.fileName}>
                {part.name}
                {part.id === current && <span className="text-muted"> · on the bench</span>}
              </td>
              <td className="figure text-right">{part.report.sizeMm.map((mm) => mm.toFixed(1)).join(' × ')}</td>
              <td className="figure text-right">{part.report.triangles.toLocaleString('en')}</td>
              <td className="figure text-right">
                {part.bytes < 1e6 ? `${(part.bytes / 1e3).toFixed(0)} kB` : `${(part.bytes / 1e6).toFixed(1)} MB`}
              </td>
              <td className="text-right text-muted">{dayOf(part.createdAt)}</td>
              <td className="text-right">
                <Button className="h-6 px-1.5" aria-label={`Delete ${part.name}`} onClick={() => void set(part, true)}>
                  Delete
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  )
}
