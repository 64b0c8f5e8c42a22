import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { asRefusal } from '../../api/asRefusal'
import { lineupsQuery, removeLineup } from '../../api/lineups'
import { useBench } from '../../desk/bench'
import { Button } from '../../ui/Button'
import { Question } from '../../ui/Dialog'

/** Asks whether the open lineup may go. */
export function RemoveLineup({ id, onEnd }: { id: string; onEnd: () => void }) {
  const { content, onRefusal } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const remove = async (): Promise<void> => {
    onEnd()
    try {
      await removeLineup(id)
      await queries.invalidateQueries(lineupsQuery)
      await navigate('/bench')
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
  return (
    <Question
      title="Remove this lineup?"
      onEscape={onEnd}
      actions={
        <>
          <Button onClick={onEnd}>Keep it</Button>
          <Button tone="danger" onClick={() => void remove()}>
            Remove
          </Button>
        </>
      }
    >
      <p>
        “{content.name}” and its {content.candidates.length} candidates leave the bench. The part stays. Export it first if you may want it
        again.
      </p>
    </Question>
  )
}
