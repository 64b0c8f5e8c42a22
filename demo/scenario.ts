import type { Mesh } from '@sable/core/mesh/mesh'
import type { Spool } from '@sable/core/shelf/spool'
import { batteryTray } from './parts/batteryTray'
import { bumperFoot } from './parts/bumperFoot'
import { carryHook } from './parts/carryHook'
import { finial } from './parts/finial'
import { shade } from './parts/shade'
import { ventCollar } from './parts/ventCollar'
import { wickKnob } from './parts/wickKnob'

/** Parts of the invented lantern workshop, made by code. */
export const demoParts: readonly { readonly key: string; readonly name: string; readonly make: () => Mesh }[] = [
  { key: 'carry-hook', name: 'carry hook', make: carryHook },
  { key: 'shade', name: 'shade', make: shade },
  { key: 'battery-tray', name: 'battery tray', make: batteryTray },
  { key: 'finial', name: 'finial', make: finial },
  { key: 'vent-collar', name: 'vent collar', make: ventCollar },
  { key: 'bumper-foot', name: 'bumper foot', make: bumperFoot },
  { key: 'wick-knob', name: 'wick-knob', make: wickKnob },
]

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
