import type { QueueMachine } from '@sable/contract/queues'

/** A machine as it stands in a queue until its owner says otherwise; minutes assumed. */
export const machineOf = (printer: string): QueueMachine => ({
  printer,
  changeMinutes: 10,
  spoolMinutes: 5,
  nozzleMinutes: 15,
  away: false,
})
