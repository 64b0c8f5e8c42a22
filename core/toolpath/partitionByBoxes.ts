import type { Exception } from '../profile/exceptions'
import type { Contours } from '../regions/contours'
import { oneGroup } from '../regions/oneGroup'
import type { PolygonKernel } from '../regions/polygon'

/** Divides a group of contours by the boxes of exceptions: each part with the exceptions that hold in it, a bit for each. */
export function partitionByBoxes(
  contours: Contours,
  group: number,
  partial: readonly { readonly bit: number; readonly exception: Exception }[],
  kernel: PolygonKernel,
): { readonly contours: Contours; readonly bits: number }[] {
  let parts = [{ contours: oneGroup(kernel, (ops) => ops.read(contours, group)), bits: 0 }]
  for (const { bit, exception } of partial) {
    const { minX, maxX, minY, maxY } = exception.box!
    const box = [minX, minY, maxX, minY, maxX, maxY, minX, maxY]
    parts = parts
      .flatMap((part) => [
        { contours: oneGroup(kernel, (ops) => ops.intersect(ops.read(part.contours, 0), ops.polygon(box))), bits: part.bits | bit },
        { contours: oneGroup(kernel, (ops) => ops.subtract(ops.read(part.contours, 0), ops.polygon(box))), bits: part.bits },
      ])
      .filter((part) => part.contours.xy.length > 0)
  }
  return parts
}
