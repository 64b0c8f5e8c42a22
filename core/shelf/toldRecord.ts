import type { Printer } from './printer'

/** What is told of shaping, Hz along X and Y, and of feeding ahead, s. A frequency of 0 says that there is no shaping. */
export const recordOf = (
  x: number | undefined,
  y: number | undefined,
  ahead: number | undefined,
): Pick<Printer, 'shaping' | 'shapedAt' | 'shapedAtY' | 'pressureAdvance'> => ({
  ...(x === undefined && y === undefined ? {} : { shaping: (x ?? 0) > 0 || (y ?? 0) > 0 }),
  ...positive({ shapedAt: x ?? y, shapedAtY: x === undefined ? undefined : y }),
  ...(ahead === undefined || ahead < 0 ? {} : { pressureAdvance: ahead }),
})

/** Only what is told, and makes sense as a limit. */
export const positive = <T extends string>(values: Record<T, number | undefined>): Partial<Record<T, number>> =>
  Object.fromEntries(Object.entries<number | undefined>(values).filter(([, value]) => value !== undefined && value > 0)) as Partial<
    Record<T, number>
  >
