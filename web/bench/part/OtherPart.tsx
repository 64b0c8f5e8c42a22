import type { StoredPart } from '@sable/contract/part'
import { useNavigate } from 'react-router'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setPart, setPurpose } from '../../desk/edits'
import { purposes } from '../../desk/purposes'
import { Button } from '../../ui/Button'
import { Question } from '../../ui/Dialog'

/** Another part than the lineup's: it gets a lineup of its own, or takes this one's place, with the purpose that it had. */
export function OtherPart({ part, onEnd }: { part: StoredPart; onEnd: () => void }) {
  const { content, part: now } = useBench()
  const navigate = useNavigate()
  const replace = (): void => {
    purposes.keep(now.id, content.purpose)
    edit((before) => setPurpose(setPart(before, part.id), purposes.of(part.id)))
    onEnd()
  }
  return (
    <Question
      title={`What about ${part.name}?`}
      onEscape={onEnd}
      actions={
        <>
          <Button onClick={onEnd}>Cancel</Button>
          <Button onClick={replace}>Replace {now.name} here</Button>
          <Button
            tone="main"
            onClick={() => {
              purposes.keep(now.id, content.purpose)
              void navigate(`/bench/new?part=${part.id}`)
            }}
          >
            A lineup of its own
          </Button>
        </>
      }
    >
      <p>
        A lineup of its own begins with three suggestions for it. In the place of {now.name}, these {content.candidates.length} columns are
        computed for it; what {now.name} is for stays with {now.name}.
      </p>
    </Question>
  )
}
