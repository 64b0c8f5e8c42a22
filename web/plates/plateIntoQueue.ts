import type { Plate } from '@sable/contract/plate'
import type { FrozenPrint } from '@sable/contract/prints'
import type { Doubtful } from '@sable/core/doubt/doubt'
import { foretoldPlate } from '@sable/core/log/foretoldPlate'
import { asModelled } from '@sable/core/mesh/place'
import { resolveSettings } from '@sable/core/setup/resolve'
import type { ToldFigures } from '../predictions/worker/plating'
import type { Item } from './usePlateColumns'

/** Most letters that a print keeps of what its profile is called. */
const LONGEST = 120

/** What a plate is frozen as when it goes into the queue: one print, by the setup that all of its parts share. */
export function frozenPlate({ name }: Plate, items: readonly Item[], figures: ToldFigures, doubts: readonly Doubtful[]): FrozenPrint {
  const [{ candidateOf, column }] = items as [Item]
  const { printer, nozzle, material, spool, values } = candidateOf
  const { settings, origins } = resolveSettings(column.request.setup, values)
  const profile = [...new Set(items.map((item) => item.candidateOf.name))].join(', ')
  return {
    name,
    profile: profile.length > LONGEST ? `${profile.slice(0, LONGEST - 1)}…` : profile,
    printer,
    nozzle,
    material,
    ...(spool === undefined ? {} : { spool }),
    placement: asModelled,
    values,
    overrides: [],
    resolved: Object.fromEntries(
      Object.entries(settings).map(([setting, value]) => [setting, { value, origin: origins[setting as keyof typeof origins] }]),
    ),
    foretold: foretoldPlate(figures, doubts),
  }
}
