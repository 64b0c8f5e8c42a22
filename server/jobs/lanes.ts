import type { JobKindName } from '@sable/contract/job'

/** Works on the units of one job, several at a time. */
export interface Lanes<Unit, Result> {
  /** How many units are worked on at once. */
  readonly count: number
  /**
   * @param lane units that follow one another in a lane may share what is remembered
   * @returns nothing for a unit that was left
   */
  readonly run: (lane: number, unit: Unit) => Promise<Result | undefined>
  /** Leaves units that nobody has begun with, where some may wait for long. */
  readonly leave?: () => Promise<void>
  readonly close: () => Promise<void>
}

/** Opens lanes for a job: threads of this machine, or workers anywhere. @param shared what all units of the job share */
export type OpenLanes = <Unit, Result>(kind: JobKindName, shared: unknown) => Lanes<Unit, Result>
