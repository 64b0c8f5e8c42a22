import type { Shelf, ShelfKind } from '@sable/contract/shelf'
import { starterMaterials, starterPrinters } from '@sable/core/shelf/starter'
import type { NewRecord } from './shelfStore'

/** A record to begin with: an ordinary one of its kind, to be filled in. */
export function newRecord(kind: ShelfKind, shelf: Shelf): NewRecord {
  switch (kind) {
    case 'printers':
      return { ...starterPrinters[1]!, name: 'New printer' }
    case 'nozzles':
      return { name: 'New nozzle', bore: 0.4, body: 'brass', inlet: 1.75 }
    case 'materials':
      return { ...starterMaterials[0]!, name: 'New material' }
    case 'spools':
      return {
        name: 'New spool',
        material: shelf.materials.find(({ archived }) => !archived)?.key ?? 'pla',
        netG: 1000,
        weighings: [],
        dried: [],
        defaults: {},
      }
    case 'profiles':
      return { name: 'New profile', notes: '', tags: [], family: '', materials: [], values: {}, overrides: [] }
  }
}
