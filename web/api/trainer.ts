import { type DrawnTower, drawnTowerSchema, type TowerTruth, towerTruthSchema } from '@sable/contract/trainer'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson } from './client'

export const towerQuery = (seed: number) =>
  queryOptions({ queryKey: ['tower', seed], queryFn: (): Promise<DrawnTower> => fetchJson(drawnTowerSchema, `/api/trainer/${seed}`) })

export const answerTower = (seed: number, value: number): Promise<TowerTruth> =>
  fetchJson(towerTruthSchema, `/api/trainer/${seed}`, asJsonBody('POST', { value }))
