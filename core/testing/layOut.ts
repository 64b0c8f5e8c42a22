import type { Mesh } from '../mesh/mesh'
import { type Override, Scopes } from '../profile/overrides'
import type { Settings, SettingValues } from '../profile/settings'
import { findRegions, type Regions } from '../regions/findRegions'
import type { Layers } from '../slicing/layers'
import { slice } from '../slicing/slice'
import { chooseSeams } from '../toolpath/chooseSeams'
import { type LaidPath, toolpathWork } from '../toolpath/layPaths'
import type { Toolpath } from '../toolpath/toolpath'
import { doAlone } from '../work/doAlone'
import { testKernel } from './kernel'
import { settingsOf } from './setups'

export interface LaidOut {
  readonly settings: Settings
  readonly scopes: Scopes
  readonly layers: Layers
  readonly regions: Regions
  readonly seams: Uint32Array
  readonly laid: LaidPath
  readonly path: Toolpath
}

/** Slices, divides and lays out a mesh, as a prediction does. A skirt is left out unless it is asked for. */
export async function layOut(mesh: Mesh, values: SettingValues = {}, overrides: readonly Override[] = []): Promise<LaidOut> {
  const kernel = await testKernel
  const settings = settingsOf({ skirtLines: 0, ...values })
  const scopes = new Scopes(settings, overrides)
  const layers = slice(mesh, (z) => scopes.settingsOf(scopes.ofLayer(z)), kernel)
  const regions = findRegions(layers, scopes, 0.4, kernel)
  const seams = chooseSeams(layers, regions, scopes)
  const laid = doAlone(toolpathWork(layers, regions, seams, scopes), kernel)
  return { settings, scopes: new Scopes(settings, overrides, laid.path.sets), layers, regions, seams, laid, path: laid.path }
}
