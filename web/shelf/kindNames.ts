import type { ShelfKind } from '@sable/contract/shelf'

export const kindNames: Readonly<Record<ShelfKind, readonly [many: string, one: string]>> = {
  printers: ['Printers', 'printer'],
  nozzles: ['Nozzles', 'nozzle'],
  materials: ['Materials', 'material'],
  spools: ['Spools', 'spool'],
  profiles: ['Profiles', 'profile'],
}
