import {
  type Lineup,
  type LineupContent,
  type LineupWrite,
  lineupListSchema,
  lineupSchema,
  type RemovedLineups,
  removedLineupsSchema,
} from '@sable/contract/lineup'
import { queryOptions } from '@tanstack/react-query'
import { asJsonBody, fetchJson, send } from './client'

export const lineupsQuery = queryOptions({ queryKey: ['lineups'], queryFn: () => fetchJson(lineupListSchema, '/api/lineups') })

export const fetchLineup = (id: string): Promise<Lineup> => fetchJson(lineupSchema, `/api/lineups/${encodeURIComponent(id)}`)

export const createLineup = (content: LineupContent): Promise<Lineup> =>
  fetchJson(lineupSchema, '/api/lineups', asJsonBody('POST', content))

export const writeLineup = (id: string, write: LineupWrite): Promise<Lineup> =>
  fetchJson(lineupSchema, `/api/lineups/${encodeURIComponent(id)}`, asJsonBody('PUT', write))

export const removedLineupsQuery = queryOptions({
  queryKey: ['lineups', 'removed'],
  queryFn: () => fetchJson(removedLineupsSchema, '/api/lineups/removed'),
})

/** Takes a lineup away, or brings it back. @returns those that are away then */
export const setLineupRemoved = (id: string, removed: boolean): Promise<RemovedLineups> =>
  fetchJson(removedLineupsSchema, `/api/lineups/${encodeURIComponent(id)}/removed`, asJsonBody('PUT', { removed }))

/** Removes a lineup for good. */
export const forgetLineup = async (id: string): Promise<void> => {
  await send(`/api/lineups/${encodeURIComponent(id)}`, { method: 'DELETE' })
}
