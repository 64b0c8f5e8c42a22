import type { SearchSpec } from '@sable/contract/search'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useParams } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { beginSearch, removeSearch, searchesQuery } from '../../api/searches'
import { Button } from '../../ui/Button'
import { Notice, type Refusal } from '../../ui/Notice'
import { useAddress } from '../../ui/useAddress'
import { ViewBar } from '../../ui/ViewBar'
import { FoundView } from './FoundView'
import { SearchForm } from './SearchForm'
import { useSearch } from './useSearch'

/** Searches of this lineup: asked for, watched, and looked through. */
export function TradeoffsView() {
  const { lineupId = '' } = useParams()
  const address = useAddress()
  const queries = useQueryClient()
  const list = useQuery(searchesQuery(lineupId))
  const [refusal, setRefusal] = useState<Refusal>()
  const asked = address.get('search')
  const id = asked === 'new' ? undefined : (list.data?.find((one) => one.id === asked)?.id ?? list.data?.[0]?.id)
  const watched = useSearch(id)
  const begin = async (spec: SearchSpec): Promise<void> => {
    setRefusal(undefined)
    try {
      const search = await beginSearch(spec)
      await queries.invalidateQueries(searchesQuery(lineupId))
      address.set({
        search: search.id,
        x: undefined,
        y: undefined,
        colour: undefined,
        size: undefined,
        limits: undefined,
        variant: undefined,
      })
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const remove = async (): Promise<void> => {
    if (!id) return
    try {
      await removeSearch(id)
      await queries.invalidateQueries(searchesQuery(lineupId))
      address.set({ search: undefined })
    } catch (error) {
      setRefusal(asRefusal(error))
    }
  }
  const search = watched.search ?? list.data?.find((one) => one.id === id)
  return (
    <section aria-label="Trade-offs" className="flex min-h-0 flex-1 flex-col">
      {refusal && (
        <div className="px-3 pt-2">
          <Notice refusal={refusal} onClose={() => setRefusal(undefined)} />
        </div>
      )}
      {search ? (
        <FoundView
          key={search.id}
          search={search}
          variants={watched.variants}
          secondsLeft={watched.secondsLeft}
          away={watched.away}
          searches={list.data ?? []}
          onRemove={() => void remove()}
          onRefusal={setRefusal}
        />
      ) : list.data ? (
        <>
          {list.data.length > 0 && (
            <ViewBar>
              <Button onClick={() => address.set({ search: undefined })}>Back to what was found</Button>
            </ViewBar>
          )}
          <SearchForm lineupId={lineupId} before={list.data[0]?.spec} onBegin={begin} />
        </>
      ) : (
        <p role="status" className="m-auto p-8 text-muted">
          {list.failureReason ? 'The server does not answer; this page tries again by itself.' : 'Opening the searches …'}
        </p>
      )}
    </section>
  )
}
