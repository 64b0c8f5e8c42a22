import { exceptionsBecomeOverrides } from '@sable/core/formats/upgrade'
import { recordSchemas, type ShelfKind, type ShelfRecords } from '../shelf'
import { type Stored, storedAs } from './storedAs'
import { profileHasMaterials } from './upgrades'

/** Records of the shelf, and what they said before. */
export const storedRecords: { readonly [Kind in ShelfKind]: Stored<ShelfRecords[Kind]> } = {
  printers: storedAs('printer', recordSchemas.printers),
  nozzles: storedAs('nozzle', recordSchemas.nozzles),
  materials: storedAs('material', recordSchemas.materials),
  spools: storedAs('spool', recordSchemas.spools),
  profiles: storedAs('profile', recordSchemas.profiles, [exceptionsBecomeOverrides, profileHasMaterials]),
}
