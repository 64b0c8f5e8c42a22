import type { SetAside } from '@sable/contract/setAside'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { asRefusal } from '../api/asRefusal'
import { removeSetAside, setAsideQuery } from '../api/setAside'
import { Button } from '../ui/Button'
import { Question, Sheet } from '../ui/Dialog'
import { download, fileNameFrom } from '../ui/download'
import { Notice, type Refusal } from '../ui/Notice'

/** What is stored and cannot be read: by name, with what is wrong. It can be saved as it stands, and removed. */
export function SetAsideSheet({ found, onClose }: { found: readonly SetAside[]; onClose: () => void }) {
  const queries = useQueryClient()
  const [asked, setAsked] = useState<SetAside>()
  const [refusal, setRefusal] = useState<Refusal>()
  const remove = async (one: SetAside): Promise<void> => {
    setAsked(undefined)
    try {
      const left = await removeSetAside(one)
      queries.setQueryData(setAsideQuery.queryKey, left)
      if (left.length === 0) onClose()
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  return (
    <Sheet title="Set aside" onClose={onClose}>
      <p className="mb-3 text-muted">
        These were stored in a way that this version cannot read, so they are left out everywhere else. Nothing of them is changed. Save
        what is stored before you remove it.
      </p>
      {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
      <table className="w-full text-[12.5px]">
        <tbody>
          {found.map((one) => (
            <tr key={`${one.kind}/${one.id}`} className="border-t border-line/60 align-top">
              <td className="py-1.5 pr-3">
                <span className="text-muted">{one.kind}</span> {one.name}
                <span className="block text-[12px] text-muted">{one.why}</span>
              </td>
              <td className="w-44 space-x-1 py-1.5 text-right">
                <Button
                  className="h-6 px-1.5"
                  onClick={() => download(`${fileNameFrom(`${one.kind} ${one.name}`)}.json`, one.stored, 'application/json')}
                >
                  Save
                </Button>
                <Button tone="danger" className="h-6 px-1.5" onClick={() => setAsked(one)}>
                  Remove …
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {asked && (
        <Question
          title={`Remove the ${asked.kind} ${asked.name}?`}
          onEscape={() => setAsked(undefined)}
          actions={
            <>
              <Button onClick={() => setAsked(undefined)}>Keep it</Button>
              <Button tone="danger" onClick={() => void remove(asked)}>
                Remove
              </Button>
            </>
          }
        >
          <p>A later version might be able to read it. This cannot be undone.</p>
        </Question>
      )}
    </Sheet>
  )
}
