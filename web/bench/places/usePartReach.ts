import type { Candidate } from '@sable/contract/lineup'
import { useBench } from '../../desk/bench'
import { useForecasts } from '../../predictions/predictionStore'
import type { PartReach } from './PictureFields'

/** How far a part reaches as it lies: as the last prediction measured it, or as it was modelled. */
export function usePartReach({ id }: Candidate): PartReach {
  const { part } = useBench()
  const sizeMm = useForecasts((all) => all[id]?.prediction?.mesh.sizeMm) ?? part.report.sizeMm
  const tenth = (mm: number): number => Math.round(10 * mm) / 10
  const [x, y] = [tenth(sizeMm[0] / 2 + 1), tenth(sizeMm[1] / 2 + 1)]
  return { topMm: tenth(sizeMm[2]), box: { minX: -x, maxX: x, minY: -y, maxY: y } }
}
