import { LARGEST_UPLOAD, type StoredPart } from '@sable/contract/part'
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { asRefusal } from '../../api/asRefusal'
import { partsQuery, uploadPart } from '../../api/parts'
import type { Refusal } from '../../ui/Notice'

/** Uploads a model, and tells the part that it is. One at a time; leaving the screen gives up. */
export function useUpload(onStored: (part: StoredPart) => void, onRefusal: (refusal: Refusal) => void) {
  const queries = useQueryClient()
  const [running, setRunning] = useState<string>()
  const abort = useRef<AbortController>(undefined)
  useEffect(() => () => abort.current?.abort(), [])
  const begin = async (file: File): Promise<void> => {
    if (file.size > LARGEST_UPLOAD) {
      onRefusal({
        where: file.name,
        message: `The file has ${(file.size / 1e6).toFixed(0)} MB; 64 MB is the most that is taken.`,
        remedy: 'Reduce the mesh, or save it as a binary STL or a 3MF.',
      })
      return
    }
    abort.current?.abort()
    const controller = new AbortController()
    abort.current = controller
    setRunning(file.name)
    try {
      const stored = await uploadPart(file, controller.signal)
      queries.setQueryData(partsQuery.queryKey, (before) => [...(before ?? []).filter(({ id }) => id !== stored.id), stored])
      onStored(stored)
    } catch (error) {
      if (!controller.signal.aborted) onRefusal(asRefusal(error))
    } finally {
      if (abort.current === controller) setRunning(undefined)
    }
  }
  return {
    running,
    begin,
    cancel: () => {
      abort.current?.abort()
      setRunning(undefined)
    },
  }
}
