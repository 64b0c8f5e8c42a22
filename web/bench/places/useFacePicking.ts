import type { Candidate } from '@sable/contract/lineup'
import type { UprightBox } from '@sable/core/mesh/boxRound'
import { useEffect, useEffectEvent, useState } from 'react'
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
  const [made, setMade] = useState<string>()
  const [failed, setFailed] = useState<string>()
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setFaces(undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])

  const boxRound = useEffectEvent((all: readonly Touch['at'][]) => {
    const request = requestFor(candidate, content, part, shelf)
    return request && predictionPool().workerOf(candidate.id).boxRound(request, all, AROUND)
  })
  // Found by its name: what was undone meanwhile is made anew, and no other place is taken for it.
  const put = useEffectEvent((place: ReturnType<typeof placeOf>) => {
    const own = places.overrides.findIndex(({ name }) => name === made)
    if (own >= 0) places.change(own, { ...places.overrides[own]!, ...place })
    else setMade(places.add(place))
  })
  // Of clicks that follow each other faster than boxes are found, the last one's box holds them all.
  useEffect(() => {
    if (!faces || faces.length === 0) return
    let isLate = false
    const surround = async (): Promise<void> => {
      try {
        const found = await boxRound(faces)
        if (!found || isLate) return
        put(placeOf(found))
      } catch (error) {
        if (isLate) return
        setFailed(error instanceof Error ? error.message : String(error))
        setFaces(faces.slice(0, -1))
      }
    }
    void surround()
    return () => {
      isLate = true
    }
  }, [faces])

  return {
    isPicking: faces !== undefined,
    count: faces?.length ?? 0,
    failed,
    start: () => {
      setMade(undefined)
      setFailed(undefined)
      setFaces([])
    },
    stop: () => setFaces(undefined),
    pick: ({ at }: Touch) => {
      setFailed(undefined)
      setFaces((all) => all && [...all, at])
    },
  }
}
export type FacePicking = ReturnType<typeof useFacePicking>

function placeOf({ fromZ, toZ, ...box }: UprightBox) {
  const tenth = (value: number): number => Math.round(10 * value) / 10
  return { fromZ: tenth(fromZ), toZ: tenth(toZ), box: roundedBox(box) }
}
