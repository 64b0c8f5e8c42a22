import type { Candidate } from '@sable/contract/lineup'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import type { PartReach } from './PictureFields'

/** How far a part reaches as it lies: as the last prediction measured it, or as it was modelled. */
export function usePartReach({ id, printer }: Candidate): PartReach {
  const { part, shelf } = useBench()
  const sizeMm = useForecasts((all) => all[id]?.prediction?.mesh.sizeMm) ?? part.report.sizeMm
  const tenth = (mm: number): number => Math.round(10 * mm) / 10
  const [x, y] = [tenth(sizeMm[0] / 2 + 1), tenth(sizeMm[1] / 2 + 1)]
  const isOnBelt = shelf.printers.find(({ key }) => key === printer)?.kinematics === 'tiltedBelt'
  return { isOnBelt, topMm: tenth(sizeMm[2]), box: { minX: -x, maxX: x, minY: -y, maxY: y } }
}
