import { differences } from '@sable/contract/differences'
import { recordSchemas, type ShelfKind } from '@sable/contract/shelf'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { fetchRevisions } from '../api/shelf'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Dialog'
import { momentOf } from '../ui/dates'
import { Select } from '../ui/Select'
import type { AnyRecord, KeptRecord } from './shelfWriter'

interface Props {
  readonly kind: ShelfKind
  readonly record: AnyRecord
  /** Records of the same kind, to compare with. */
  readonly others: readonly KeptRecord[]
  readonly onRestore: (record: AnyRecord) => void
  readonly onClose: () => void
}

/** Earlier versions of a record and its fellows, compared with what it says now; whole ones or single values can be taken over. */
export function RevisionsSheet({ kind, record, others, onRestore, onClose }: Props) {
  const revisions = useQuery({
    queryKey: ['shelf', kind, record.key, 'revisions'],
    queryFn: () => fetchRevisions(kind, record.key),
    gcTime: 0,
  })
  const [chosen, setChosen] = useState<string>()
  const choices = [
    ...(revisions.data ?? []).slice(1).map(({ revision, createdAt, record: old }) => ({
      id: `revision-${revision}`,
      name: `version ${revision}, ${momentOf(createdAt)}`,
      record: old,
    })),
    ...others
      .filter(({ key }) => key !== record.key)
      .map((other) => ({ id: `other-${other.key}`, name: other.name, record: other as unknown })),
  ]
  const choice = choices.find(({ id }) => id === chosen) ?? choices[0]
  const parsed = choice && recordSchemas[kind].safeParse(choice.record)
  const other = parsed?.success ? (parsed.data as AnyRecord) : undefined
  const rows = other ? differences(record, other) : []
  return (
    <Sheet title={`Versions of ${record.name}`} onClose={onClose}>
      {choices.length === 0 ? (
        <p className="text-muted">
          {revisions.isPending ? 'Reading its versions …' : 'It never said anything else, and nothing else is here to compare with.'}
        </p>
      ) : (
        <>
          <Select label="Compare with" value={choice?.id ?? ''} of={choices} onChange={setChosen} />
          {rows.length === 0 ? (
            <p className="mt-3 text-muted">They say the same.</p>
          ) : (
            <table className="mt-3 w-full text-[12.5px]">
              <thead>
                <tr className="text-left text-[12px] text-muted">
                  <th className="font-normal">Field</th>
                  <th className="text-right font-normal">now</th>
                  <th className="text-right font-normal">there</th>
                  <th className="w-20" />
                </tr>
              </thead>
              <tbody>
                {rows.map(({ path, here, there, taken }) => (
                  <tr key={path} className="border-t border-line/60">
                    <td className="py-1">{path}</td>
                    <td className="figure max-w-52 truncate text-right">{here}</td>
                    <td className="figure max-w-52 truncate text-right">{there}</td>
                    <td className="text-right">
                      <Button className="h-6 px-1.5" onClick={() => onRestore(recordSchemas[kind].parse(taken) as AnyRecord)}>
                        Take it
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {other && choice?.id.startsWith('revision') && rows.length > 0 && (
            <div className="mt-4 flex justify-end">
              <Button
                tone="main"
                onClick={() => {
                  onRestore({ ...other, key: record.key })
                  onClose()
                }}
              >
                Restore this version
              </Button>
            </div>
          )}
        </>
      )}
    </Sheet>
  )
}
