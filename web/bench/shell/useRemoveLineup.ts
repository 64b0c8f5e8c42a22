import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { toast } from 'sonner'
import { asRefusal } from '../../api/asRefusal'
import { lineupsQuery, setLineupRemoved } from '../../api/lineups'
import { useBench } from '../../desk/bench'

/** Long enough to think again, ms. */
const TO_THINK_MS = 12_000

/** Takes the open lineup away at once; a press brings it back, now from the toast and later from the list of those removed. */
export function useRemoveLineup(): (id: string) => Promise<void> {
  const { content, onRefusal } = useBench()
  const queries = useQueryClient()
  const navigate = useNavigate()
  const bringBack = async (id: string): Promise<void> => {
    try {
      await setLineupRemoved(id, false)
      await queries.invalidateQueries(lineupsQuery)
      await navigate(`/bench/${id}/ledger`)
    } catch (error) {
      toast(asRefusal(error).message)
    }
  }
  return async (id) => {
    try {
      await setLineupRemoved(id, true)
      await queries.invalidateQueries(lineupsQuery)
      await navigate('/bench')
      toast(`“${content.name}” is removed. The part stays.`, {
        duration: TO_THINK_MS,
        action: { label: 'Bring it back', onClick: () => void bringBack(id) },
      })
    } catch (error) {
      onRefusal(asRefusal(error))
    }
  }
}
