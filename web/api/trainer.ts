import {
  type DrawnTower,
  drawnTowerSchema,
  type TowerKind,
  type TowerTruth,
  type towerBandSchema,
  towerTruthSchema,
} from '@sable/contract/trainer'
import type { z } from 'zod'
import { asJsonBody, fetchJson } from './client'

type TowerBand = z.infer<typeof towerBandSchema>

/** Has a trial's program printed on a machine whose truth nobody knows. */
export const makeTower = (seed: number, kind: TowerKind, bands: readonly TowerBand[], program: Blob): Promise<DrawnTower> =>
  fetchJson(drawnTowerSchema, `/api/trainer/${seed}?${new URLSearchParams({ kind, bands: JSON.stringify(bands) })}`, {
    method: 'POST',
    body: program,
    headers: { 'Content-Type': 'application/octet-stream' },
    patienceMs: 60_000,
  })

export const answerTower = (id: string, value: number): Promise<TowerTruth> =>
  fetchJson(towerTruthSchema, `/api/trainer/${id}/answer`, asJsonBody('POST', { value }))
