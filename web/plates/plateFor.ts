import type { QueryClient } from '@tanstack/react-query'
import { addPlate, platesQuery } from '../api/plates'

/** Where a column is put onto the plate that was touched last, or onto a new one. */
export async function plateFor(lineup: string, candidate: string, queries: QueryClient): Promise<string> {
  const [latest] = await queries.fetchQuery({ ...platesQuery, staleTime: 0 })
  const { id } = latest ?? (await addPlate({ name: 'Plate 1', order: 'together', items: [] }))
  await queries.invalidateQueries(platesQuery)
  return `/queue/plates/${id}?add=${lineup}+${candidate}`
}
