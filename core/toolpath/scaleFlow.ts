import type { Scopes } from '../profile/overrides'
import { moveCount, type Toolpath } from './toolpath'

/** Gives every line of a block of layers the share of plastic that its settings ask for, on the bed also that of the first layer. */
export function scaleFlow({ area, scope, layerStart, ...path }: Toolpath, firstLayer: number, scopes: Scopes): void {
  const shares = scopes.sets.map((_, own) => scopes.settingsOf(own).flow / 100)
  const onBed = scopes.settings.firstLayerFlow / 100
  if (shares.every((share) => share === 1) && (onBed === 1 || firstLayer > 0)) return
  const endOfFirst = firstLayer === 0 ? layerStart[1]! : 0
  for (let m = 0; m < moveCount({ area, scope, layerStart, ...path }); m++) area[m]! *= shares[scope[m]!]! * (m < endOfFirst ? onBed : 1)
}
