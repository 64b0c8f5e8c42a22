import type { PickedCase, PickedPlace } from '@sable/core/physics/strength/pickedCases'
import type { DrawnCase, PointedAt } from '@sable/core/pipeline/pickedCases'
import { useQuery } from '@tanstack/react-query'
import { predictionPool } from '../../predictions/predictionStore'
import type { PredictRequest } from '../../predictions/worker/request'

/** The faces of a case on the part as it lies; nothing until they are found. */
export function useDrawnCase(
  candidateId: string,
  request: PredictRequest | undefined,
  picked: PickedCase | undefined,
): DrawnCase | undefined {
  const { data } = useQuery({
    // How much acts on a face moves none.
    queryKey: [
      'case drawn',
      request?.contentKey,
      request?.placement,
      picked?.holds.map(({ face }) => face),
      picked?.loads.map(({ face, along }) => [face, along]),
    ],
    queryFn: () => predictionPool().workerOf(candidateId).drawCase(request!, picked!),
    enabled: request !== undefined && picked !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  })
  return data
}

/** The face of the part at a point of it as it lies, mm, or a box about that point. */
export const pickPlace = (
  candidateId: string,
  request: PredictRequest,
  at: readonly [number, number, number],
  pointedAt: PointedAt,
): Promise<PickedPlace> => predictionPool().workerOf(candidateId).pickPlace(request, at, pointedAt)
