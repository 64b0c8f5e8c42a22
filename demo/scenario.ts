import type { Mesh } from '@sable/core/mesh/mesh'
import { noPurpose, type Purpose } from '@sable/core/physics/strength/purpose'
import type { SettingValues } from '@sable/core/profile/settings'
import type { Spool } from '@sable/core/shelf/spool'
import { batteryTray } from './parts/batteryTray'
import { carryHook } from './parts/carryHook'
import { finial } from './parts/finial'
import { shade } from './parts/shade'

/** Parts of the invented lantern workshop, made by code. */
export const demoParts: readonly { readonly key: string; readonly name: string; readonly make: () => Mesh }[] = [
  { key: 'carry-hook', name: 'carry hook', make: carryHook },
  { key: 'shade', name: 'shade', make: shade },
  { key: 'battery-tray', name: 'battery tray', make: batteryTray },
  { key: 'finial', name: 'finial', make: finial },
]

/** A candidate of the demo's lineup: keys of starter records and the profile's own values. */
export interface DemoCandidate {
  readonly name: string
  readonly spool?: string
  readonly printer: string
  readonly nozzle: string
  readonly material: string
  readonly values: SettingValues
}

/** Three ways to print the carry hook: as always, to last, and for tonight. */
export const demoLineup: {
  readonly name: string
  readonly part: string
  readonly purpose: Purpose
  readonly candidates: readonly DemoCandidate[]
} = {
  name: 'Carry hook for the harbour lantern',
  part: 'carry-hook',
  // The hook carries a lantern of some 4 kg at its tip, and half as much again is wanted.
  purpose: {
    ...noPurpose,
    kind: 'load',
    seen: 'all',
    load: { ...noPurpose.load, kind: 'bend', axis: 'y' },
    limits: { maxTimeS: 3600, minLoadN: 60 },
  },
  candidates: [
    {
      name: 'everyday',
      printer: 'lugger',
      nozzle: 'bore-0.4',
      material: 'pla',
      spool: 'storm-black',
      values: {
        layerHeight: 0.2,
        wallCount: 3,
        infillDensity: 15,
        outerWallSpeed: 60,
        innerWallSpeed: 90,
        infillSpeed: 120,
        skinSpeed: 90,
        firstLayerSpeed: 30,
      },
    },
    {
      name: 'sturdy',
      printer: 'lugger',
      nozzle: 'bore-0.4',
      material: 'pla',
      values: {
        layerHeight: 0.2,
        wallCount: 5,
        topLayers: 5,
        bottomLayers: 5,
        infillDensity: 25,
        outerWallSpeed: 40,
        innerWallSpeed: 80,
        infillSpeed: 100,
        skinSpeed: 70,
        firstLayerSpeed: 25,
      },
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
        skinSpeed: 250,
        firstLayerSpeed: 60,
      },
    },
  ],
}

/**
 * Reels on the lantern maker's shelf. Makers are invented.
 *
 * @param today on which the demo is made: weighings and dryings lie so many days before it
 */
export function demoSpools(today: Date): Spool[] {
  const ago = (days: number): string => new Date(today.getTime() - days * 86_400_000).toISOString().slice(0, 10)
  return [
    {
      key: 'storm-black',
      name: 'Storm black PLA',
      material: 'pla',
      maker: 'Ebbwick',
      color: '#2a2a2e',
      netG: 1000,
      price: 19,
      weighings: [
        { on: ago(115), grossG: 1221 },
        { on: ago(38), grossG: 864 },
        { on: ago(11), grossG: 612 },
      ],
      dried: [ago(115), ago(12)],
      ladder: [
        { temperature: 200, flow: 19.5 },
        { temperature: 210, flow: 22.5 },
        { temperature: 220, flow: 25 },
      ],
      defaults: { retractLength: 0.7 },
    },
    {
      key: 'lamp-amber',
      name: 'Lamp amber PETG',
      material: 'petg',
      maker: 'Ebbwick',
      color: '#e0922f',
      netG: 1000,
      price: 23,
      weighings: [{ on: ago(26), grossG: 705 }],
      dried: [ago(27)],
      defaults: {},
    },
    {
      key: 'rope-ends',
      name: 'Rope brown PLA, last of the reel',
      material: 'pla',
      maker: 'Ebbwick',
      color: '#8a6239',
      netG: 1000,
      reelG: 218,
      price: 19,
      weighings: [{ on: ago(5), grossG: 266 }],
      dried: [],
      defaults: {},
    },
    {
      key: 'buffer-grey',
      name: 'Buffer grey flexible',
      material: 'flexible',
      maker: 'Sallowmere',
      color: '#7d8790',
      netG: 500,
      price: 18,
      weighings: [{ on: ago(75), grossG: 612 }],
      dried: [ago(76)],
      defaults: {},
    },
  ]
}
