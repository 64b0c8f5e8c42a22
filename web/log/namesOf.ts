import type { Shelf } from '@sable/contract/shelf'

/** What records are called, whatever their kind: keys of different kinds do not meet. */
export function namesOf(shelf: Shelf): (key: string) => string {
  const names = new Map(
    [...shelf.printers, ...shelf.nozzles, ...shelf.materials, ...shelf.spools].map(({ key, name }) => [key, name] as const),
  )
  return (key) => names.get(key) ?? key
}
