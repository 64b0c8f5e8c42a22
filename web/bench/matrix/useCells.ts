import type { MatrixCell } from '@sable/core/matrix/matrix'
import type { Purpose } from '@sable/core/physics/strength/purpose'
import { useEffect, useState } from 'react'
import { cellKey, keepCells, knownCells } from '../../predictions/cellStore'
import { keyOf, predictionPool } from '../../predictions/predictionStore'
import type { PredictRequest } from '../../predictions/worker/request'

/** So many cells are written into the browser's store at once. */
const AT_ONCE = 8

export interface Cells {
  /** In the order of the requests; nothing where it is not there yet. */
  readonly cells: readonly (MatrixCell | undefined)[]
  readonly done: number
  readonly running: boolean
  readonly stop: () => void
  readonly resume: () => void
}

/**
 * Figures of cells: those that were worked out before are there at once, the others are computed beside the columns.
 *
 * @param requests keep their identity for as long as they say the same; undefined where the shelf lacks what a cell names
 */
export function useCells(requests: readonly (PredictRequest | undefined)[], purpose: Purpose): Cells {
  const [cells, setCells] = useState<readonly (MatrixCell | undefined)[]>([])
  const [running, setRunning] = useState(false)
  const [stopped, setStopped] = useState(false)
  const [turn, setTurn] = useState(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: a turn begins anew.
  useEffect(() => {
    const stop = new Int32Array(new SharedArrayBuffer(4))
    const isWanted = (): boolean => Atomics.load(stop, 0) === 0
    const put = (index: number, cell: MatrixCell): void =>
      setCells((before) => {
        const next = [...before]
        next[index] = cell
        return next
      })
    const run = async (): Promise<void> => {
      const keys = await Promise.all(requests.map((request) => (request ? cellKey(`${keyOf(request)} ${JSON.stringify(purpose)}`) : '')))
      const known = await knownCells(keys)
      if (!isWanted()) return
      setCells(requests.map((request, i) => (request ? known[i] : { refused: 'The shelf lacks what this cell names.' })))
      const missing = requests.flatMap((request, i) => (request && !known[i] ? [{ request, i }] : []))
      if (missing.length === 0 || stopped) return
      setRunning(true)
      let unkept: [string, MatrixCell][] = []
      await predictionPool().figuresOfAll(
        missing.map(({ request }) => request),
        purpose,
        stop,
        (index, cell) => {
          const { i } = missing[index]!
          unkept.push([keys[i]!, cell])
          if (unkept.length >= AT_ONCE) {
            void keepCells(unkept)
            unkept = []
          }
          if (isWanted()) put(i, cell)
        },
      )
      void keepCells(unkept)
      if (isWanted()) setRunning(false)
    }
    setCells([])
    setRunning(false)
    run().catch(() => isWanted() && setRunning(false))
    return () => {
      Atomics.store(stop, 0, 1)
    }
  }, [requests, purpose, turn, stopped])
  return {
    cells,
    done: cells.filter((cell) => cell !== undefined).length,
    running,
    stop: () => setStopped(true),
    resume: () => {
      setStopped(false)
      setTurn((n) => n + 1)
    },
  }
}
