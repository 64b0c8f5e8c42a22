import type { Search } from '@sable/contract/search'
import { asRefusal } from '../../api/asRefusal'
import { actOnSearch } from '../../api/searches'
import { Button } from '../../ui/Button'
import { Choices } from '../../ui/Choices'
import type { Refusal } from '../../ui/Notice'
import { useAddress } from '../../ui/useAddress'
import type { Model } from './plot'
import { StateWords } from './StateWords'
import { isRunning } from './useSearch'

const models: readonly { readonly id: Model; readonly name: string }[] = [
  { id: 'solved', name: 'the front, solved' },
  { id: 'sections', name: 'all, by sections' },
]

interface Props {
  readonly search: Search
  readonly secondsLeft: number | undefined
  readonly away: boolean
  /** How many of the front are solved while that goes on. */
  readonly solving: { readonly done: number; readonly of: number } | undefined
  /** What strength is told by, where there is a choice. */
  readonly model: Model | undefined
  readonly counts: { readonly good: number; readonly all: number; readonly brushed: number | undefined }
  readonly onRefusal: (refusal: Refusal) => void
}

/** How far a search is, what can be done about that, and how many of its variants keep all limits. */
export function FoundState({ search, secondsLeft, away, solving, model, counts: { good, all, brushed }, onRefusal }: Props) {
  const act = async (action: 'pause' | 'resume' | 'cancel'): Promise<void> => {
    try {
      await actOnSearch(search.id, action)
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  const running = isRunning(search)
  const address = useAddress()
  return (
    <div className="flex items-center gap-3 px-3 pt-2 text-[12.5px]">
      <StateWords search={search} secondsLeft={secondsLeft} away={away} solving={solving} />
      {running && <Button onClick={() => void act('pause')}>Pause</Button>}
      {(search.state === 'paused' || search.state === 'failed') && <Button onClick={() => void act('resume')}>Go on</Button>}
      {(running || search.state === 'paused') && <Button onClick={() => void act('cancel')}>End it</Button>}
      <div className="flex-1" />
      {model && (
        <Choices
          label=""
          name="Shown"
          of={models}
          value={model}
          onChange={(to) => address.set({ strength: to === 'sections' ? to : undefined, variant: undefined })}
        />
      )}
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
