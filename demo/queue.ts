/** What the workshop still has to print for the fair on Saturday: prints of its log again, by how many days ago they were made. */
export interface DemoJob {
  readonly name: string
  /** Any of these prints tells how. */
  readonly as: readonly number[]
  readonly copies?: number
  /** Its copies share plates, and it may be printed off any reel of its material. */
  readonly plates?: true
  readonly reel?: 'any'
  /** On the day of the fair, at this hour; else whenever. */
  readonly byHour?: number
}

export const demoQueue = {
  name: 'The fair on Saturday',
  /** Before work, and in the evening; at weekends by day. */
  hours: [
    { days: [0, 1, 2, 3, 4], from: '07:00', to: '08:00' },
    { days: [0, 1, 2, 3, 4], from: '17:30', to: '22:00' },
    { days: [5, 6], from: '09:00', to: '22:00' },
  ],
  reels: [{ spool: 'rope-ends', useUp: true }],
  jobs: [
    { name: 'carry hooks for the long tables', as: [27, 4], copies: 3, plates: true, byHour: 9 },
    { name: 'carry hook, sturdy, for the gate', as: [1, 13], byHour: 9 },
    { name: 'carry hook in amber', as: [61] },
    { name: 'battery tray, left', as: [8], byHour: 9 },
    { name: 'battery tray, right', as: [8], byHour: 9 },
    { name: 'battery tray in a hurry', as: [76], byHour: 9 },
    { name: 'shade for the stand', as: [31], byHour: 9 },
    { name: 'shade, amber', as: [43], byHour: 9 },
    { name: 'shade, amber, second', as: [43] },
    { name: 'finial', as: [38, 65], byHour: 9 },
    { name: 'finial, spare', as: [38, 65] },
    { name: 'finial without a brim', as: [66] },
    { name: 'carry hook to show', as: [4], reel: 'any' },
    { name: 'feet for the stand', as: [0], copies: 6, plates: true, byHour: 9 },
  ] satisfies readonly DemoJob[],
} as const
