import type { Remedy } from '../../spec/cause'

/** Remedies that several causes share. */

/** As far as the hot end goes. @param by °C */
export const hotter = (by: number, words = `Print ${by} °C hotter`): Remedy => ({
  words,
  change: ({ settings, setup }) =>
    settings.nozzleTemperature + by <= setup.printer.hotEnd.maxTemperature
      ? { nozzleTemperature: settings.nozzleTemperature + by }
      : undefined,
  keeps: 'spool',
})

/** Not far below the label. @param by °C */
export const cooler = (by: number): Remedy => ({
  words: `Print ${by} °C cooler`,
  change: ({ settings, setup }) =>
    settings.nozzleTemperature - by >= setup.material.nozzleRange[0] - 10
      ? { nozzleTemperature: settings.nozzleTemperature - by }
      : undefined,
  keeps: 'spool',
})

export const findHeat: Remedy = { words: 'Find the heat of this reel', trial: 'temperature', keeps: 'spool' }

/** A limit under what really flows: one above it would change nothing. @param keeps where it belongs: to what is printed, or to the machine that cannot feed it */
export const lowerFlow = (words: string, share: number, keeps: Remedy['keeps']): Remedy => ({
  words,
  change: ({ settings, prediction: { melt } }) => ({
    flowLimit: Math.max(0.5, Math.round(10 * share * Math.min(settings.flowLimit, melt.highest * melt.failsAt)) / 10),
  }),
  keeps,
})

/** @param words what is done after the filament was pulled out cold */
export const coldPull = (words: string, keeps: Remedy['keeps']): Remedy => ({
  words,
  keeps,
  minutes: 20,
  caution: 'The nozzle is at more than 80 °C: pliers, not fingers. Unscrew it hot and hold the block.',
})

export const support: Remedy = {
  words: 'Support it',
  change: ({ settings }) => (settings.supports === 'off' ? { supports: 'plain' } : undefined),
  keeps: 'profile',
}

export const lift = (words: string): Remedy => ({
  words,
  change: ({ settings }) => (settings.lift === 'never' ? { lift: 'overPrinted', liftHeight: settings.layerHeight } : undefined),
  keeps: 'profile',
})

export const mendFan: Remedy = {
  words: 'See that the part fan turns, and that its duct is clean and points at the nozzle',
  keeps: 'nothing',
  minutes: 10,
  caution: 'Pull the mains plug before you reach in; the nozzle may still be hot.',
}
