import type { TrialPhoto } from '@sable/contract/trials'
import { useQueryClient } from '@tanstack/react-query'
import { addPhoto, photoAddress, removePhoto, trialsQuery } from '../api/trials'
import { Photos } from '../ui/Photos'

/** Photographs of one trial's print. */
export function TrialPhotos({
  trial,
  photos,
  attempt,
}: {
  trial: string
  /** Of all trials. */
  photos: readonly TrialPhoto[]
  attempt: (work: () => Promise<unknown>) => Promise<void>
}) {
  const queries = useQueryClient()
  return (
    <Photos
      photos={photos.filter((one) => one.trial === trial).map(({ id }) => id)}
      addressOf={photoAddress}
      onAdd={(files, withOriginals) =>
        attempt(async () => {
          try {
            for (const file of files) await addPhoto(trial, file, withOriginals)
          } finally {
            await queries.invalidateQueries(trialsQuery)
          }
        })
      }
      onRemove={(id) => void attempt(async () => queries.setQueryData(trialsQuery.queryKey, await removePhoto(id)))}
    />
  )
}
