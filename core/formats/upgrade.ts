/** Turns what one version wrote into what the next one writes. It is given what `JSON.parse` gave, and may be handed nonsense. */
export type Upgrade = (written: unknown) => unknown

/**
 * Says what an earlier version wrote as today's does.
 *
 * @param upgrades the first makes version 2 out of version 1, and so on: one that has run anywhere never changes
 */
export const upgradeFrom = (version: number, upgrades: readonly Upgrade[], written: unknown): unknown =>
  upgrades.slice(version - 1).reduce((value, upgrade) => upgrade(value), written)

/** An upgrade of the members of an object; what is no object is passed on, for the schema to refuse. */
export const ofObject =
  (change: (written: Readonly<Record<string, unknown>>) => Record<string, unknown>): Upgrade =>
  (written) =>
    typeof written === 'object' && written !== null && !Array.isArray(written) ? change(written as Record<string, unknown>) : written

/** An upgrade of each member of a list. */
export const ofEach =
  (upgrade: Upgrade): Upgrade =>
  (written) =>
    Array.isArray(written) ? written.map(upgrade) : written

/** Places with other values were once called exceptions. */
export const exceptionsBecomeOverrides = ofObject(({ exceptions, ...rest }) => ({
  ...rest,
  ...(exceptions === undefined ? {} : { overrides: exceptions }),
}))
