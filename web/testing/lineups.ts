import { type Candidate, type Lineup, lineupSchema } from '@sable/contract/lineup'
import type { StoredPart } from '@sable/contract/part'
import { shelfSchema } from '@sable/contract/shelf'
import { noPurpose } from '@sable/core/physics/strength/purpose'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'

/** A shelf with the starter records and two reels. */
export const shelf = shelfSchema.parse({
  printers: starterPrinters,
  nozzles: starterNozzles,
  materials: starterMaterials,
  spools: [
    { key: 'lamp-amber', name: 'Lamp amber PETG', material: 'petg', netG: 1000, weighings: [], dried: [], defaults: {} },
    {
      key: 'storm-black',
      name: 'Storm black PLA',
      material: 'pla',
      netG: 1000,
      weighings: [],
      dried: [],
      ladder: [
        { temperature: 200, flow: 20 },
        { temperature: 210, flow: 22 },
      ],
      defaults: { retractLength: 0.7 },
    },
  ],
  profiles: [],
})

export const candidateOf = (name: string, values: Candidate['values'] = {}, more: Partial<Candidate> = {}): Candidate => ({
  id: `00000000-0000-4000-8000-${String([...name].reduce((sum, letter) => 31 * sum + letter.charCodeAt(0), 7) % 1e12).padStart(12, '0')}`,
  name,
  printer: 'lugger',
  nozzle: 'bore-0.4',
  material: 'pla',
  values,
  overrides: [],
  ...more,
})

export const storedPart: StoredPart = {
  id: '00000000-0000-4000-8000-00000000aaaa',
  name: 'block',
  fileName: 'block.stl',
  contentKey: 'a'.repeat(64),
  bytes: 684,
  report: {
    triangles: 12,
    volumeMm3: 4000,
    areaMm2: 1600,
    sizeMm: [20, 20, 10],
    watertight: true,
    shells: 1,
    openEdges: 0,
    crowdedEdges: 0,
    notes: [],
  },
  demo: false,
  createdAt: '2026-11-01T08:00:00.000Z',
}

/** A lineup as the server gives it: three candidates unless others are wanted. */
export const lineupOf = (
  candidates: readonly Candidate[] = [
    candidateOf('everyday', { wallCount: 3, layerHeight: 0.2 }),
    candidateOf('sturdy', { wallCount: 5, topLayers: 5, layerHeight: 0.2 }),
    candidateOf('quick', { wallCount: 2, layerHeight: 0.28 }),
  ],
  more: Partial<Lineup> = {},
): Lineup =>
  lineupSchema.parse({
    id: '00000000-0000-4000-8000-00000000bbbb',
    revision: 3,
    name: 'Block for the lantern',
    partId: storedPart.id,
    placement: { scale: 1, rotateDeg: [0, 0, 0] },
    purpose: noPurpose,
    candidates: [...candidates],
    demo: false,
    updatedAt: '2026-11-01T08:00:00.000Z',
    ...more,
  })
