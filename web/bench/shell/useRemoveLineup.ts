import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../../api/asRefusal'
import { createLineup, lineupsQuery, removeLineup } from '../../api/lineups'
import { useBench } from '../../desk/bench'

/** Long enough to think again, ms. */
const TO_THINK_MS = 12_000

/** Removes the open lineup at once; for a while a press brings it back. */
export function useRemoveLineup(): (id: string) => Promise<void> {
  const { content, onRefusal } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const bringBack = async (): Promise<void> => {
    try {
      const { id } = await createLineup(content)
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${id}/ledger`)
    } catch (error) {
      toast(asRefusal(error).message)
    }
  }
  return async (id) => {
    try {
      await removeLineup(id)
      await queries.invalidateQueries(lineupsQuery)
      await navigate('/bench')
      toast(`“${content.name}” is removed. The part stays.`, {
        duration: TO_THINK_MS,
        action: { label: 'Bring it back', onClick: () => void bringBack() },
      })
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
}
