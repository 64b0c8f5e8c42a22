import type { Candidate } from '@sable/contract/lineup'
import { asModelled } from '@sable/core/mesh/place'
import type { PickedCase, PickedPlace } from '@sable/core/physics/strength/pickedCases'
import { ownDirection, type PointedAt } from '@sable/core/pipeline/pickedCases'
import { useEffect, useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setPurpose } from '../../desk/edits'
import { requestFor } from '../../predictions/predictionStore'
import type { Patch } from '../../solids/overlays'
import type { Touch } from '../../solids/SolidDrawing'
import { type Picking, type Way, ways } from './places'
import { pickPlace, useDrawnCase } from './useDrawnCase'

/** An end reaches so far, of the length. */
const END = 0.1

type PickedLoad = PickedCase['loads'][number]

/** Where a part is held and loaded, pointed at face by face on a candidate's picture. */
export function useCasePicking(candidate: Candidate) {
  const { content, part, shelf } = useBench()
  const { purpose, placement = asModelled } = content
  const [picking, setPicking] = useState<Picking>()
  const [pointedAt, setPointedAt] = useState<PointedAt>('face')
  const [openId, setOpenId] = useState<string>()
  const [failed, setFailed] = useState<string>()
  const open = purpose.cases.find(({ id }) => id === openId) ?? purpose.cases[0]
  const request = useMemo(() => requestFor(candidate, content, part, shelf), [candidate, content, part, shelf])
  const drawnCase = useDrawnCase(candidate.id, request, open)
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') setPicking(undefined)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const change = (cases: readonly PickedCase[]): void => edit((before) => setPurpose(before, { ...before.purpose, cases: [...cases] }))
  /** A box faces nowhere: what acts in it acts downwards until another way is chosen. */
  const boxWay = (place: PickedPlace) => ('sides' in place ? { along: alongOf('0 0 -1') } : {})
  const add = (place: PickedPlace, what: Picking): void => {
    if (!open) return
    const next: PickedCase =
      what === 'hold'
        ? { ...open, holds: [...open.holds, { face: place, slides: false }] }
        : { ...open, loads: [...open.loads, { face: place, action: 'force', amount: purpose.limits.minLoadN ?? 10, ...boxWay(place) }] }
    change(purpose.cases.map((one) => (one.id === open.id ? next : one)))
    setPicking(what === 'hold' && open.loads.length === 0 ? 'load' : undefined)
  }
  const pick = async ({ at }: Touch): Promise<void> => {
    if (!request || !picking) return
    try {
      setFailed(undefined)
      add(await pickPlace(candidate.id, request, at, pointedAt), picking)
    } catch (error) {
      setFailed(error instanceof Error ? error.message : String(error))
    }
  }
  /** All of the part that lies furthest one way, as it lies now. */
  const takeEnd = (way: string, what: Picking): void => add({ outwards: ownDirection(triple(way), placement), share: END }, what)
  const wayOf = (along: PickedLoad['along']): Way | undefined =>
    along === undefined
      ? 'face'
      : ways.find(({ id }) => id !== 'face' && ownDirection(triple(id), placement).every((one, k) => Math.abs(one - along[k]!) < 1e-6))?.id
  const alongOf = (way: Exclude<Way, 'face'>): [number, number, number] => ownDirection(triple(way), placement)

  const patches = useMemo(
    (): Patch[] =>
      drawnCase
        ? [
            ...drawnCase.holds.map(({ corners, isBox }) => ({ corners, colour: '#77aadd', isAround: isBox })),
            ...drawnCase.loads.map(({ corners, isBox }) => ({ corners, colour: '#f0a83c', isAround: isBox })),
          ]
        : [],
    [drawnCase],
  )
  return { picking, setPicking, pointedAt, setPointedAt, open, setOpenId, failed, patches, pick, takeEnd, change, wayOf, alongOf }
}

const triple = (text: string): readonly [number, number, number] => text.split(' ').map(Number) as unknown as [number, number, number]
