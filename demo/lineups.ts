import { noPurpose, type Purpose } from '@sable/core/physics/strength/purpose'
import type { SettingValues } from '@sable/core/profile/settings'
import { demoProfiles } from './profiles'

/** A candidate of a demo lineup: keys of starter records and the profile's own values. */
export interface DemoCandidate {
  readonly name: string
  readonly spool?: string
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly values: SettingValues
}

export interface DemoLineup {
  readonly name: string
  readonly part: string
  readonly purpose: Purpose
  readonly candidates: readonly DemoCandidate[]
}

const from = (key: string, more: SettingValues = {}): SettingValues => ({ ...demoProfiles.find((one) => one.key === key)!.values, ...more })
const lugger = { printer: 'lugger', nozzle: 'bore-0.4' } as const
const black = { ...lugger, material: 'pla', spool: 'storm-black' } as const
const amber = { ...lugger, material: 'petg', spool: 'lamp-amber' } as const
const grey = { ...lugger, material: 'flexible', spool: 'buffer-grey' } as const

/** Three ways to print the carry hook: as always, to last, and for tonight. The hook carries some 4 kg at its tip. */
const hook: DemoLineup = {
  name: 'Carry hook for the harbour lantern',
  part: 'carry-hook',
  purpose: {
    ...noPurpose,
    kind: 'load',
    seen: 'all',
    load: { ...noPurpose.load, kind: 'bend', axis: 'y' },
    limits: { maxTimeS: 3600, minLoadN: 40 },
  },
  candidates: [
    { name: 'everyday', ...black, values: { ...from('everyday-pla'), firstLayerSpeed: 30 } },
    {
      name: 'sturdy',
      ...lugger,
      material: 'pla',
      values: { ...from('sturdy-pla'), infillSpeed: 100, topBottomSpeed: 70, firstLayerSpeed: 25 },
    },
    {
      name: 'quick',
      printer: 'cutter',
      nozzle: 'bore-0.4',
      material: 'fast-pla',
      values: {
        layerHeight: 0.28,
        wallCount: 2,
        topLayers: 3,
        bottomLayers: 3,
        infillDensity: 10,
        infillPattern: 'lines',
        outerWallSpeed: 200,
        innerWallSpeed: 300,
        infillSpeed: 300,
        topBottomSpeed: 250,
        firstLayerSpeed: 60,
      },
    },
  ],
}

/** The other parts, each with the question that it asks: how it looks, how fast, what holds it up, how soft, how tall, how small. */
const others: readonly DemoLineup[] = [
  {
    name: 'Shade for the window: what shows',
    part: 'shade',
    purpose: { ...noPurpose, kind: 'show', seen: 'sides', limits: { maxRaUm: 12 } },
    candidates: [
      { name: 'gallery', ...amber, values: from('gallery-petg') },
      { name: 'everyday', ...amber, values: from('everyday-petg') },
    ],
  },
  {
    name: 'Battery tray before supper: how fast',
    part: 'battery-tray',
    purpose: { ...noPurpose, kind: 'work', seen: 'all', limits: { maxTimeS: 4500 } },
    candidates: [
      { name: 'everyday', ...black, values: from('everyday-pla') },
      { name: 'tonight', printer: 'cutter', nozzle: 'bore-0.4', material: 'fast-pla', values: from('tonight-fast') },
      { name: 'tonight, wide', printer: 'lugger', nozzle: 'bore-0.6', material: 'pla', values: from('tonight-wide') },
    ],
  },
  {
    name: 'Vent collar: bridged or held up',
    part: 'vent-collar',
    purpose: { ...noPurpose, kind: 'work', seen: 'all', limits: {} },
    candidates: [
      { name: 'as it stands', ...black, values: from('everyday-pla') },
      { name: 'held up', ...black, values: from('everyday-pla', { supports: 'plain' }) },
      { name: 'slow and cool', ...black, values: from('everyday-pla', { outerWallSpeed: 25, bridgeSpeed: 15, fanSpeed: 100 }) },
    ],
  },
  {
    name: 'Bumper foot: how soft',
    part: 'bumper-foot',
    purpose: { ...noPurpose, kind: 'work', seen: 'all', load: { ...noPurpose.load, kind: 'crush', axis: 'z' }, limits: {} },
    candidates: [
      { name: 'everyday', ...grey, values: from('everyday-flexible') },
      { name: 'soft', ...grey, values: from('soft-foot') },
      { name: 'firm', ...grey, values: from('everyday-flexible', { wallCount: 4, infillDensity: 25 }) },
    ],
  },
  {
    name: 'Finial: tall and thin',
    part: 'finial',
    purpose: { ...noPurpose, kind: 'show', seen: 'sides', limits: {} },
    candidates: [
      { name: 'everyday', ...black, values: from('everyday-pla') },
      {
        name: 'slow, brim',
        ...black,
        values: from('everyday-pla', { outerWallSpeed: 25, innerWallSpeed: 40, brim: 'outer', minLayerTime: 12, lift: 'always' }),
      },
    ],
  },
  {
    name: 'Wick-knob: small detail',
    part: 'wick-knob',
    purpose: { ...noPurpose, kind: 'show', seen: 'all', limits: {} },
    candidates: [
      { name: 'everyday', ...black, values: from('everyday-pla') },
      { name: 'fine bore', printer: 'lugger', nozzle: 'bore-0.25', material: 'pla', values: from('gallery-pla', { layerHeight: 0.08 }) },
      { name: 'two together', ...black, values: from('gallery-pla', { copies: 2 }) },
    ],
  },
]

/** The workshop's lineups; the first is the one that a new desk opens with. */
export const demoLineups: readonly DemoLineup[] = [hook, ...others]
