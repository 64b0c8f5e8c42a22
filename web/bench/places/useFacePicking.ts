import type { Candidate } from '@sable/contract/lineup'
import { useEffect, useState } from 'react'
import { useBench } from '../../desk/bench'
import { predictionPool, requestFor } from '../../predictions/predictionStore'
import type { Touch } from '../../solids/SolidDrawing'
import { roundedBox } from './placeBox'
import type { Places } from './usePlaces'

/** A box reaches so far around the faces that it holds, mm: past the walls of most profiles. */
export const AROUND = 2

/** Boxes round faces that are pointed at: the first click makes one, the next ones widen it until another is asked for. */
export function useFacePicking(candidate: Candidate, places: Places) {
  const { content, part, shelf } = useBench()
  const [faces, setFaces] = useState<readonly Touch['at'][]>()
  const [failed, setFailed] = useState<string>()
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setFaces(undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const pick = async ({ at }: Touch): Promise<void> => {
    const request = requestFor(candidate, content, part, shelf)
    if (!request || !faces) return
    const all = [...faces, at]
    try {
      setFailed(undefined)
      const { fromZ, toZ, ...box } = await predictionPool().workerOf(candidate.id).boxRound(request, all, AROUND)
      const tenth = (value: number): number => Math.round(10 * value) / 10
      const place = { fromZ: tenth(fromZ), toZ: tenth(toZ), box: roundedBox(box) }
      const own = places.overrides[places.chosen]
      if (faces.length > 0 && own) places.change(places.chosen, { ...own, ...place })
      else places.add(place)
      setFaces(all)
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error))
    }
  }
  return {
    isPicking: faces !== undefined,
    count: faces?.length ?? 0,
    failed,
    start: () => setFaces([]),
    stop: () => setFaces(undefined),
    pick,
  }
}
export type FacePicking = ReturnType<typeof useFacePicking>
