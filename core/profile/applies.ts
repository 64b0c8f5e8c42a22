import type { SettingName, Settings } from './settings'

/** Settings that mean something only while another one has one of these values. */
const needs: Partial<Readonly<Record<SettingName, readonly [SettingName, ...(number | string)[]]>>> = {
  largestCusp: ['layerMode', 'followShape'],
  leastLayerHeight: ['layerMode', 'followShape'],
  greatestLayerHeight: ['layerMode', 'followShape'],
  layerHeightStep: ['layerMode', 'followShape'],
  leastLineWidth: ['thinLines', 'filled'],
  ironingSpacing: ['ironing', 'on'],
  ironingFlow: ['ironing', 'on'],
  ironingSpeed: ['ironing', 'on'],
  liftHeight: ['lift', 'overPrinted', 'always'],
  supportAngle: ['supports', 'plain', 'branching'],
  supportFrom: ['supports', 'plain', 'branching'],
  supportPattern: ['supports', 'plain', 'branching'],
  supportDensity: ['supports', 'plain', 'branching'],
  supportTopLayers: ['supports', 'plain'],
  supportGap: ['supports', 'plain', 'branching'],
  supportGapLayers: ['supports', 'plain', 'branching'],
  supportSpeed: ['supports', 'plain', 'branching'],
  trunkDiameter: ['supports', 'branching'],
  tipDiameter: ['supports', 'branching'],
  branchLean: ['supports', 'branching'],
  supportBrim: ['supports', 'plain', 'branching'],
  bottomAngle: ['bottomPattern', 'asTops', 'backAndForth', 'separate'],
  brimWidth: ['brim', 'outer', 'inner', 'both'],
}

/** What a wall that rises as one line has no use for. */
const unlikeSpiral: ReadonlySet<SettingName> = new Set([
  'topLayers',
  'infillDensity',
  'infillPattern',
  'infillAngle',
  'infillShiftX',
  'infillShiftY',
  'infillEvery',
  'infillSpeed',
  'seam',
  'ironing',
  'supports',
])

/** Whether a setting means anything beside the others. */
export function applies(name: SettingName, settings: Settings): boolean {
  if (settings.spiralWall === 'on' && unlikeSpiral.has(name)) return false
  const need = needs[name]
  if (!need) {
    if (name === 'smallLoopLength') return settings.smallLoopSpeed > 0
    if (name === 'skirtGap') return settings.skirtLines > 0
    if (name === 'wipeRetractFirst') return settings.wipeLength > 0
    if (name === 'copyOrder' || name === 'copyGap') return settings.copies > 1
    return true
  }
  const [other, ...values] = need
  return values.includes(settings[other])
}
