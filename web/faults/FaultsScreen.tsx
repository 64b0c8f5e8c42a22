import type { StoredCase } from '@sable/contract/cases'
import { faults } from '@sable/core/faults/faults'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import clsx from 'clsx'
import { Plus } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../api/asRefusal'
import { casesQuery, changeCase, openCase, removeCase } from '../api/cases'
import { partsQuery } from '../api/parts'
import { shelfQuery } from '../api/shelf'
import { Button } from '../ui/Button'
import { dayOf } from '../ui/dates'
import { type FileAsk, FilePicker } from '../ui/FilePicker'
import { Loading } from '../ui/Loading'
import { Notice, type Refusal } from '../ui/Notice'
import { CasePage } from './CasePage'
import { readCaseFile } from './caseFile'
import { FaultDrawing } from './FaultDrawing'
import { NewCase } from './NewCase'

/** Faults, each worked as a case: what is seen, what speaks for which cause, one change at a time. */
export function FaultsScreen() {
  const { caseId } = useParams()
  const navigate = useNavigate()
  const queries = useQueryClient()
  const cases = useQuery(casesQuery)
  const parts = useQuery(partsQuery)
  const shelf = useQuery(shelfQuery)
  const [refusal, setRefusal] = useState<Refusal>()
  const picker = useRef<FileAsk>(null)
  useEffect(() => {
    document.title = 'Faults · Sable Lantern'
  }, [])
  if (!cases.data || !parts.data || !shelf.data)
    return <Loading what="the faults" failed={cases.failureReason ?? parts.failureReason ?? shelf.failureReason} />
  const open =
    caseId === 'new' ? undefined : (cases.data.find(({ id }) => id === caseId) ?? (caseId === undefined ? cases.data[0] : undefined))
  const attempt = async (work: () => Promise<StoredCase[]>): Promise<void> => {
    try {
      setRefusal(undefined)
      queries.setQueryData(casesQuery.queryKey, await work())
    } catch (error) {
      setRefusal(asRefusal(error))
      await queries.invalidateQueries(casesQuery)
    }
  }
  const change = async (before: StoredCase, after: StoredCase): Promise<void> => {
    try {
      setRefusal(undefined)
      await changeCase(queries)(before, after)
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const bringBack = ({ id: _, revision: __, changedAt: ___, ...one }: StoredCase): Promise<void> =>
    attempt(async () => {
      const { id } = await openCase(one)
      await navigate(`/faults/${id}`)
      return queries.fetchQuery(casesQuery)
    })
  const bringIn = (file: File): Promise<void> =>
    attempt(async () => {
      const { id } = await openCase(readCaseFile(await file.text()))
      await navigate(`/faults/${id}`)
      return queries.fetchQuery(casesQuery)
    })
  const remove = async (one: StoredCase): Promise<void> => {
    await attempt(() => removeCase(one.id))
    await navigate('/faults')
    toast(`The case of ${one.partName} is deleted.`, { action: { label: 'Bring it back', onClick: () => void bringBack(one) } })
  }
  return (
    <div className="flex min-h-0 flex-1 max-lg:overflow-x-auto">
      <section aria-label="Cases" className="flex w-72 shrink-0 flex-col border-r border-line">
        <header className="flex h-11 shrink-0 items-center gap-2 border-b border-line px-3">
          <h1 className="flex-1 text-[15px] font-semibold">Faults</h1>
          <Button onClick={() => picker.current?.ask()}>From a file</Button>
          <FilePicker ref={picker} label="Case from a file" accept=".json,application/json" onFile={(file) => void bringIn(file)} />
          <Button onClick={() => void navigate('/faults/new')}>
            <Plus className="size-3.5" aria-hidden />
            New case
          </Button>
        </header>
        <ul className="min-h-0 flex-1 overflow-auto">
          {cases.data.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={one.id === open?.id}
                onClick={() => void navigate(`/faults/${one.id}`)}
                className={clsx(
                  'flex w-full items-center gap-3 border-b border-line/60 px-3 py-2 text-left text-[12.5px]',
                  one.id === open?.id ? 'bg-raised' : 'hover:bg-raised/60',
                )}
              >
                <FaultDrawing fault={one.fault} className="h-8 w-10 shrink-0 text-muted" />
                <span className="min-w-0">
                  <span className="block truncate">
                    {faults[one.fault].name} <span className="text-muted">{one.partName}</span>
                  </span>
                  <span className="block truncate text-[12px] text-muted">
                    {one.closed ?? `${one.tries.length === 0 ? 'nothing tried yet' : `${one.tries.length} tried`}, ${dayOf(one.changedAt)}`}
                  </span>
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <div className="min-w-0 flex-1 overflow-auto px-5 py-3">
        {refusal && <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />}
        {open ? (
          <CasePage
            key={open.id}
            one={open}
            part={parts.data.find(({ id }) => id === open.partId)}
            shelf={shelf.data}
            cases={cases.data}
            onChange={(next) => void change(open, next)}
            onRemove={() => void remove(open)}
            onRefusal={setRefusal}
          />
        ) : (
          <NewCase onRefusal={setRefusal} />
        )}
      </div>
    </div>
  )
}
