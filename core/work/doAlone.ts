import type { PolygonKernel } from '../geometry/polygon'
import type { Stage } from '../profile/table/setting'
import { type Bundle, runPiece, toldShare, type Work } from './work'

export type OnProgress = (stage: Stage, share: number) => void

/** Does one piece of a bundle in this thread. */
export const doPiece = ({ pieces, told }: Bundle, i: number, kernel: PolygonKernel, onProgress: OnProgress): unknown =>
  runPiece(pieces[i]!, { kernel, tick: (share) => told && onProgress(told.stage, toldShare(told, i + share, pieces.length)) })

/** Does work piece by piece in this thread. */
export function doAlone<T>(work: Work<T>, kernel: PolygonKernel, onProgress: OnProgress = () => {}): T {
  let step = work.next([])
  while (!step.done) {
    const bundle = step.value
    step = work.next(bundle.pieces.map((_, i) => doPiece(bundle, i, kernel, onProgress)))
  }
  return step.value
}
