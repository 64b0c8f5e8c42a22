import type { Stage } from '../profile/setting'
import type { PolygonKernel } from '../regions/polygon'
import { runPiece, toldShare, type Work } from './work'

export type OnProgress = (stage: Stage, share: number) => void

/** Does work piece by piece in this thread. */
export function doAlone<T>(work: Work<T>, kernel: PolygonKernel, onProgress: OnProgress = () => {}): T {
  let step = work.next([])
  while (!step.done) {
    const { pieces, told } = step.value
    const results = pieces.map((piece, i) =>
      runPiece(piece, { kernel, tick: (share) => told && onProgress(told.stage, toldShare(told, i + share, pieces.length)) }),
    )
    step = work.next(results)
  }
  return step.value
}
