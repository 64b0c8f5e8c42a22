/** Feed rates are quoted both ways: mm/s and mm/min. */
export const convertSpeed = {
  fromPerMinute: (mmPerMinute: number): number => mmPerMinute / 60,
  toPerMinute: (mmPerSecond: number): number => mmPerSecond * 60,
}
