import type { LineupContent } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import type { Shelf } from '@sable/contract/shelf'
import { seenSurface, statedLoad } from '@sable/core/figures/table/stated'
import { cornersOf } from '@sable/core/mesh/cornersOf'
import { type Orientation, sixOrientations } from '@sable/core/mesh/orientations'
import { carriedTo } from '@sable/core/physics/strength/carriedTo'
import { placeOf } from '@sable/core/physics/strength/purpose'
import type { Prediction } from '@sable/core/pipeline/predict'
import { notSolved } from '@sable/core/pipeline/solvedWork'
import { formatDuration, formatForce } from '@sable/core/units/format'
import * as Comlink from 'comlink'
import { useEffect, useMemo, useState } from 'react'
import { useBench } from '../../desk/bench'
import { edit } from '../../desk/deskStore'
import { setPlacement, setPurpose } from '../../desk/edits'
import { predictionPool, requestFor } from '../../predictions/predictionStore'
import { type ToSolve, useSolvedEach } from '../../predictions/useSolvedEach'
import { Button } from '../../ui/Button'
import { Sheet } from '../../ui/Dialog'

interface Props {
  readonly onClose: () => void
}

/** The six orientations, each computed for the first candidate with supports where it needs them. */
export function OrientationsSheet({ onClose }: Props) {
  const { content, part, shelf } = useBench()
  const ways = useMemo(() => sixOrientations(content.placement), [content.placement])
  const { found, failed } = useOrientations(content, part, shelf, ways)
  const pictures = usePictures(part, ways)
  const [first] = content.candidates
  // Supports bear nothing: the part alone is solved, each way as soon as its other figures are there.
  const isComputed = found.length === ways.length
  const solving = useMemo(
    () =>
      ways.flatMap((way): ToSolve[] => {
        const purpose = carriedTo(way, content.purpose)
        const request = first && isComputed && requestFor(first, { ...content, placement: way.placement, purpose }, part, shelf)
        return request && notSolved(purpose) === undefined ? [{ request, purpose }] : []
      }),
    [ways, content, first, part, shelf, isComputed],
  )
  const solved = useSolvedEach(solving)
  const rows = ways.map((way, i) => {
    const prediction = found[i]
    const purpose = carriedTo(way, content.purpose)
    const one = solved[i]
    const isSolved = one !== undefined && 'solved' in one
    return {
      way,
      purpose,
      prediction,
      isSolved,
      load: isSolved ? one.solved.failureN : prediction && statedLoad(prediction, purpose).loadN,
    }
  })
  type Row = (typeof rows)[number]
  // What reads alike is as good.
  const bestOf = ({
    of,
    shown,
    most,
  }: {
    of: (row: Row) => number | undefined
    shown: (value: number) => string
    most: boolean
  }): string => {
    const values = rows.flatMap((row) => of(row) ?? []).filter((value) => !Number.isNaN(value))
    return values.length === 0 ? '' : shown(most ? Math.max(...values) : Math.min(...values))
  }
  const columns = [
    { name: 'Time', of: (row: Row) => row.prediction?.timeS, shown: formatDuration, most: false },
    {
      name: 'Supports',
      of: (row: Row) => row.prediction?.filament.supportG,
      shown: (g: number) => `${g.toFixed(1)} g`,
      most: false,
    },
    {
      name: 'Surface Ra',
      of: (row: Row) => row.prediction && seenSurface(row.prediction, row.purpose).raMeanUm,
      shown: (ra: number) => `${ra.toFixed(1)} µm`,
      most: false,
    },
    { name: 'Strength', of: (row: Row) => row.load, shown: formatForce, most: true },
  ]
  return (
    <Sheet title="Six orientations" onClose={onClose}>
      <p className="mb-3 text-[12.5px] text-muted">
        Computed for {first?.name ?? 'no candidate'}, with plain supports where it needs them. The load turns with the part; strength is
        solved way by way, and told by sections until then. The best of each column is bright; in the pictures, what hangs over is coloured,
        the farther the brighter.
      </p>
      {failed !== undefined && <p className="mb-3 text-stop">{failed}</p>}
      <table className="w-full text-right text-[12.5px]" aria-label="Six orientations">
        <thead>
          <tr className="border-b border-line">
            <th className="py-1 text-left font-normal text-muted">Orientation</th>
            {columns.map(({ name }) => (
              <th key={name} className="py-1 font-normal text-muted">
                {name}
              </th>
            ))}
            <th />
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={row.way.name} className="border-b border-line/60">
              <th className="py-1 text-left font-medium">
                <span className="flex items-center gap-3">
                  <span className="h-[54px] w-[72px] shrink-0 rounded bg-sunk">
                    {pictures[i] && <img src={pictures[i]} alt="" className="size-full" />}
                  </span>
                  {row.way.name}
                </span>
              </th>
              {columns.map((column) => {
                const value = column.of(row)
                const text = value === undefined ? undefined : column.shown(value)
                return (
                  <td
                    key={column.name}
                    {...(column.name === 'Strength' && !row.isSolved && text !== undefined ? { 'data-hint': 'by sections' } : {})}
                    className={`figure ${column.name === 'Strength' && !row.isSolved ? 'italic' : ''} ${text !== undefined && text === bestOf(column) ? 'text-lantern-ink' : ''}`}
                  >
                    {text ?? <span className="text-muted">…</span>}
                  </td>
                )
              })}
              <td className="w-20 py-1 text-right">
                {i > 0 && (
                  <Button
                    className="h-6 px-1.5"
                    onClick={() => {
                      edit((before) => setPurpose(setPlacement(before, row.way.placement), row.purpose))
                      onClose()
                    }}
                  >
                    Use this
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  )
}

/** Pictures of the part in each way; made once the figures have been asked for. */
function usePictures({ id, contentKey, fileName }: StoredPart, ways: readonly Orientation[]): readonly string[] {
  const [pictures, setPictures] = useState<readonly string[]>([])
  useEffect(() => {
    let wanted = true
    const draw = async (): Promise<void> => {
      const worker = predictionPool().anyWorker
      const meshes = await Promise.all(ways.map(({ placement }) => worker.meshForView({ partId: id, contentKey, fileName, placement })))
      const { picturesOf } = await import('../../solids/pictureOf')
      if (wanted) setPictures(picturesOf(meshes.map(cornersOf), 72, 54))
    }
    // The figures say what is wrong with a part; its pictures just stay away.
    draw().catch(() => {})
    return () => {
      wanted = false
    }
  }, [id, contentKey, fileName, ways])
  return pictures
}

function useOrientations(content: LineupContent, part: StoredPart, shelf: Shelf, ways: readonly Orientation[]) {
  const [found, setFound] = useState<readonly Prediction[]>([])
  const [failed, setFailed] = useState<string>()
  const [first] = content.candidates
  const request = useMemo(() => first && requestFor(first, content, part, shelf), [first, content, part, shelf])
  useEffect(() => {
    if (!request) return
    const stop = new Int32Array(new SharedArrayBuffer(4))
    setFound([])
    setFailed(undefined)
    predictionPool()
      .anyWorker.tryPlacements(
        request,
        ways.map((way) => ({ placement: way.placement, load: placeOf(carriedTo(way, content.purpose)) })),
        stop,
        Comlink.proxy((prediction: Prediction) => {
          if (Atomics.load(stop, 0) === 0) setFound((before) => [...before, prediction])
        }),
      )
      .catch((error: unknown) => {
        if (Atomics.load(stop, 0) === 0) setFailed(error instanceof Error ? error.message : String(error))
      })
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [request, ways, content.purpose])
  return { found, failed }
}
