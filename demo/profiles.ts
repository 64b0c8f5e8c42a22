import type { SettingValues } from '@sable/core/profile/settings'

/** A profile of the workshop's library. */
export interface DemoProfile {
  readonly key: string
  readonly name: string
  readonly family: string
  readonly materials: readonly string[]
  /** Bores that it is for, mm. */
  readonly bores: readonly [least: number, most: number]
  readonly tags: readonly string[]
  readonly notes: string
  readonly values: SettingValues
}

/** What the four families of the workshop come to, whatever they are printed from. */
const gallery: SettingValues = {
  layerHeight: 0.12,
  wallCount: 3,
  topLayers: 6,
  infillDensity: 12,
  outerWallSpeed: 30,
  innerWallSpeed: 60,
  seam: 'rear',
  ironing: 'on',
}
const everyday: SettingValues = {
  layerHeight: 0.2,
  wallCount: 3,
  infillDensity: 15,
  outerWallSpeed: 60,
  innerWallSpeed: 90,
  infillSpeed: 120,
  topBottomSpeed: 90,
}
const sturdy: SettingValues = {
  layerHeight: 0.2,
  wallCount: 5,
  topLayers: 5,
  bottomLayers: 5,
  infillDensity: 25,
  outerWallSpeed: 40,
  innerWallSpeed: 80,
}
const tonight: SettingValues = {
  layerHeight: 0.28,
  wallCount: 2,
  topLayers: 3,
  bottomLayers: 3,
  infillDensity: 10,
  infillPattern: 'lines',
  minLayerTime: 4,
}
const fast: SettingValues = { outerWallSpeed: 150, innerWallSpeed: 250, infillSpeed: 250, topBottomSpeed: 200 }

const small = [0.35, 0.45] as const
const wide = [0.55, 0.65] as const

/** Profiles of the lantern workshop: four families over four materials and two bores, each with what it is for. */
export const demoProfiles: readonly DemoProfile[] = [
  {
    key: 'gallery-pla',
    name: 'Gallery, PLA',
    family: 'gallery',
    materials: ['pla'],
    bores: small,
    tags: ['show', 'shade'],
    notes: 'For what stands in the window. Slow outer wall for its gloss, seam to the rear.',
    values: gallery,
  },
  {
    key: 'gallery-petg',
    name: 'Gallery, PETG',
    family: 'gallery',
    materials: ['petg'],
    bores: small,
    tags: ['show', 'shade'],
    notes: 'Shades that stand near a flame lamp of 40 °C. Dry the reel first.',
    values: { ...gallery, outerWallSpeed: 25, ironing: 'off', fanSpeed: 40 },
  },
  {
    key: 'gallery-wide',
    name: 'Gallery, wide lines',
    family: 'gallery',
    materials: ['pla'],
    bores: wide,
    tags: ['show', 'large'],
    notes: 'Large shades: fewer, wider walls in fine layers.',
    values: { ...gallery, layerHeight: 0.18, wallCount: 2 },
  },
  {
    key: 'everyday-pla',
    name: 'Everyday, PLA',
    family: 'everyday',
    materials: ['pla', 'fast-pla'],
    bores: small,
    tags: ['work'],
    notes: 'What is not said otherwise is printed with this.',
    values: everyday,
  },
  {
    key: 'everyday-petg',
    name: 'Everyday, PETG',
    family: 'everyday',
    materials: ['petg'],
    bores: small,
    tags: ['work', 'outdoors'],
    notes: 'Slow lines, fast travel against drips.',
    values: { ...everyday, outerWallSpeed: 40, innerWallSpeed: 55, infillSpeed: 60, topBottomSpeed: 50, travelSpeed: 150 },
  },
  {
    key: 'everyday-flexible',
    name: 'Everyday, flexible',
    family: 'everyday',
    materials: ['flexible'],
    bores: small,
    tags: ['feet'],
    notes: 'Soft feet and buffers: thin walls, little infill, no hurry.',
    values: { layerHeight: 0.2, wallCount: 2, topLayers: 3, bottomLayers: 3, infillDensity: 10 },
  },
  {
    key: 'everyday-wide',
    name: 'Everyday, wide lines',
    family: 'everyday',
    materials: ['pla'],
    bores: wide,
    tags: ['work', 'large'],
    notes: 'Half the layers of the fine bore.',
    values: { ...everyday, layerHeight: 0.32, wallCount: 2 },
  },
  {
    key: 'sturdy-pla',
    name: 'Sturdy, PLA',
    family: 'sturdy',
    materials: ['pla'],
    bores: small,
    tags: ['load', 'hook'],
    notes: 'For the hooks: five walls before any more infill.',
    values: sturdy,
  },
  {
    key: 'sturdy-petg',
    name: 'Sturdy, PETG',
    family: 'sturdy',
    materials: ['petg'],
    bores: small,
    tags: ['load', 'outdoors'],
    notes: 'Gives before it breaks. Little fan, for the bond.',
    values: { ...sturdy, innerWallSpeed: 55, infillSpeed: 60, fanSpeed: 20 },
  },
  {
    key: 'sturdy-wide',
    name: 'Sturdy, wide lines',
    family: 'sturdy',
    materials: ['pla', 'petg'],
    bores: wide,
    tags: ['load', 'large'],
    notes: 'Three wide walls carry what five narrow ones do.',
    values: { ...sturdy, layerHeight: 0.3, wallCount: 3 },
  },
  {
    key: 'soft-foot',
    name: 'Soft foot',
    family: 'sturdy',
    materials: ['flexible'],
    bores: small,
    tags: ['feet', 'soft'],
    notes: 'Softer than everyday: one wall and 2 % under the top.',
    values: { layerHeight: 0.2, wallCount: 1, topLayers: 2, bottomLayers: 2, infillDensity: 5 },
  },
  {
    key: 'tonight-fast',
    name: 'Tonight, fast PLA',
    family: 'tonight',
    materials: ['fast-pla'],
    bores: small,
    tags: ['draft', 'tray'],
    notes: 'Trays and jigs before supper.',
    values: { ...tonight, ...fast },
  },
  {
    key: 'tonight-wide',
    name: 'Tonight, wide lines',
    family: 'tonight',
    materials: ['pla'],
    bores: wide,
    tags: ['draft', 'large'],
    notes: 'Thick layers; flow holds it to its pace.',
    values: { ...tonight, layerHeight: 0.4, outerWallSpeed: 60, innerWallSpeed: 80, infillSpeed: 80 },
  },
  {
    key: 'tonight-petg',
    name: 'Tonight, PETG',
    family: 'tonight',
    materials: ['petg'],
    bores: small,
    tags: ['draft'],
    notes: 'As fast as it flows.',
    values: { ...tonight, outerWallSpeed: 60, innerWallSpeed: 70, infillSpeed: 70 },
  },
]
