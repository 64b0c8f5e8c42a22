import type { Search } from '@sable/contract/search'
import { asRefusal } from '../../api/asRefusal'
import { actOnSearch } from '../../api/searches'
import { Button } from '../../ui/Button'
import type { Refusal } from '../../ui/Notice'
import { StateWords } from './StateWords'
import { isRunning } from './useSearch'

interface Props {
  readonly search: Search
  readonly secondsLeft: number | undefined
  readonly away: boolean
  readonly counts: { readonly good: number; readonly all: number; readonly brushed: number | undefined }
  readonly onRefusal: (refusal: Refusal) => void
}

/** How far a search is, what can be done about that, and how many of its variants keep all limits. */
export function FoundState({ search, secondsLeft, away, counts: { good, all, brushed }, onRefusal }: Props) {
  const act = async (action: 'pause' | 'resume' | 'cancel'): Promise<void> => {
    try {
      await actOnSearch(search.id, action)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const running = isRunning(search)
  return (
    <div className="flex items-center gap-3 px-3 pt-2 text-[12.5px]">
      <StateWords search={search} secondsLeft={secondsLeft} away={away} />
      {running && <Button onClick={() => void act('pause')}>Pause</Button>}
      {(search.state === 'paused' || search.state === 'failed') && <Button onClick={() => void act('resume')}>Go on</Button>}
      {(running || search.state === 'paused') && <Button onClick={() => void act('cancel')}>End it</Button>}
      <div className="flex-1" />
      <span role="status">
        <span className="figure">{good}</span> <span className="text-muted">of</span> <span className="figure">{all}</span>{' '}
        <span className="text-muted">meet all</span>
        {brushed !== undefined && (
          <>
            <span className="text-muted">,</span> <span className="figure">{brushed}</span> <span className="text-muted">brushed</span>
          </>
        )}
      </span>
    </div>
  )
}
