import type { Step } from './step'

/** Exceptions without heat where they cover a part of a layer only. */
function heatOutOfBoxes(text: string): string {
  const places = JSON.parse(text) as { box?: unknown; nearBelt?: unknown; values: Record<string, unknown> }[]
  if (!places.some(({ box, nearBelt }) => box !== undefined || nearBelt !== undefined)) return text
  return JSON.stringify(
    places.map((place) => {
      if (place.box === undefined && place.nearBelt === undefined) return place
      const { nozzleTemperature: _, bedTemperature: __, ...values } = place.values
      return { ...place, values }
    }),
  )
}

export const heatByLayers: Step = {
  name: '05-heat-by-layers',
  // Heat can no longer differ within a layer: places that said so would make their lineup unreadable.
  async up(db) {
    for (const table of ['profiles', 'profile_revisions']) {
      const rows = (await db.select(null, table, {})) as { id?: string; profile_id?: string; revision: number; exceptions: string }[]
      for (const { id, profile_id, revision, exceptions } of rows) {
        const mended = heatOutOfBoxes(exceptions)
        if (mended === exceptions) continue
        await db.bulkUpdate(table, { exceptions: mended }, id === undefined ? { profile_id, revision } : { id })
      }
    }
  },
}
