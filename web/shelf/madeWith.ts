import type { Shelf } from '@sable/contract/shelf'
import type { Profile } from '@sable/core/shelf/profile'

/** What a profile was made with: the first of the shelf that it is for. */
export function madeWith({ materials, bores }: Pick<Profile, 'materials' | 'bores'>, shelf: Shelf) {
  const here = <R extends { key: string; archived: boolean }>(records: readonly R[]): readonly R[] =>
    records.filter(({ archived }) => !archived)
  const usual = here(shelf.nozzles).find(({ bore }) => bore === 0.4)
  const nozzle = bores ? here(shelf.nozzles).find(({ bore }) => bore >= bores[0] && bore <= bores[1]) : usual
  return {
    printer: (here(shelf.printers).find(({ key }) => key === 'lugger') ?? here(shelf.printers)[0])?.key ?? '',
    nozzle: (nozzle ?? usual ?? here(shelf.nozzles)[0])?.key ?? '',
    material: materials[0] ?? here(shelf.materials)[0]?.key ?? '',
  }
}
