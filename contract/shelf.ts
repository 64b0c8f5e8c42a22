import { upgradeFrom } from '@sable/core/formats/upgrade'
import { nozzleNow, spoolNow, type Took } from '@sable/core/log/book'
import { learned } from '@sable/core/setup/learned'
import type { Setup } from '@sable/core/setup/resolve'
import { materialSchema } from '@sable/core/shelf/material'
import { nozzleSchema } from '@sable/core/shelf/nozzle'
import { printerSchema } from '@sable/core/shelf/printer'
import { profileSchema } from '@sable/core/shelf/profile'
import { materialOf, spoolSchema, stockOf } from '@sable/core/shelf/spool'
import { z } from 'zod'
import { isFields } from './saysTheSame'
import { profilesHaveMaterials, profilesOverride } from './stored/upgrades'
import { placedReadingSchema } from './trials'

export const shelfKinds = ['printers', 'nozzles', 'materials', 'spools', 'profiles'] as const
export type ShelfKind = (typeof shelfKinds)[number]
export const shelfKindSchema = z.enum(shelfKinds)

/** What a record of each kind says. */
export const recordSchemas = {
  printers: printerSchema,
  nozzles: nozzleSchema,
  materials: materialSchema,
  spools: spoolSchema,
  profiles: profileSchema,
} as const
export type ShelfRecords = { readonly [Kind in ShelfKind]: z.infer<(typeof recordSchemas)[Kind]> }

/** What the shelf knows of a record beside what it says: whether it came with the program, whether it is put away, and its revision. */
const kept = { starter: z.boolean().default(false), archived: z.boolean().default(false), revision: z.number().int().positive().default(1) }
export interface Kept {
  readonly starter: boolean
  readonly archived: boolean
  readonly revision: number
}

const grams = z.number().min(0)
/** What a print took of its reels, its nozzle and its machine. */
const printUseSchema = z.object({
  at: z.string(),
  name: z.string(),
  printer: z.string(),
  nozzle: z.string(),
  material: z.string(),
  hours: z.number().min(0),
  cost: z.number().min(0),
  reels: z.array(
    z.object({ spool: z.string(), beforeG: grams.optional(), afterG: grams.optional(), ranOut: z.boolean().optional(), foretoldG: grams }),
  ),
})
export type PrintUse = z.infer<typeof printUseSchema>

export const shelfSchema = z.object({
  printers: z.array(printerSchema.extend(kept)),
  nozzles: z.array(nozzleSchema.extend(kept)),
  materials: z.array(materialSchema.extend(kept)),
  spools: z.array(spoolSchema.extend(kept)),
  profiles: z.array(profileSchema.extend(kept)),
  /** What was read of trials with these records. */
  evidence: z.array(placedReadingSchema).default([]),
  /** What prints took, the oldest first. */
  uses: z.array(printUseSchema).default([]),
})
export type Shelf = z.infer<typeof shelfSchema>

/** Versions of the shelf's file before this one, said as the next. */
const fileUpgrades = [profilesOverride, profilesHaveMaterials]
export const SHELF_FILE_VERSION = 3 as const

/** The shelf as one file: see docs/shelf-file.md. What is put away goes along. Files of earlier versions are read as today's. */
export const shelfFileSchema = z.preprocess(
  upgradedFile,
  z.object({
    format: z.literal('sable-lantern/shelf'),
    version: z.literal(SHELF_FILE_VERSION),
    printers: z.array(printerSchema.extend(kept)).default([]),
    nozzles: z.array(nozzleSchema.extend(kept)).default([]),
    materials: z.array(materialSchema.extend(kept)).default([]),
    spools: z.array(spoolSchema.extend(kept)).default([]),
    profiles: z.array(profileSchema.extend(kept)).default([]),
  }),
)
export type ShelfFile = z.infer<typeof shelfFileSchema>

/** What is of no version that was, or of a later one, is left for the schema to refuse. */
function upgradedFile(given: unknown): unknown {
  const version = isFields(given) ? given.version : undefined
  if (typeof version !== 'number' || !(version >= 1 && version < SHELF_FILE_VERSION)) return given
  return { ...(upgradeFrom(version, fileUpgrades, given) as object), version: SHELF_FILE_VERSION }
}

/** A change of a record carries the revision that it started from. */
export const recordWriteSchema = z.object({ revision: z.number().int().positive(), record: z.unknown() })

/** What was done to a record. */
export const archiveSchema = z.object({ archived: z.boolean() })

/** Earlier versions of a record, newest first. */
export const recordRevisionsSchema = z.array(z.object({ revision: z.number().int(), record: z.unknown(), createdAt: z.string() }))
export type RecordRevisions = z.infer<typeof recordRevisionsSchema>

/** Where a record is in use, by name. */
export const usesSchema = z.object({ lineups: z.array(z.string()), spools: z.array(z.string()), columns: z.number().int() })
export type Uses = z.infer<typeof usesSchema>

/**
 * What a candidate prints with, as far as trials have told; undefined where the shelf lacks what it names.
 *
 * @param today ISO date, to tell how dry a spool is
 */
export function setupOf(
  names: { readonly printer: string; readonly nozzle: string; readonly material: string; readonly spool?: string | undefined },
  shelf: Pick<Shelf, 'printers' | 'nozzles' | 'materials' | 'spools'> & Partial<Pick<Shelf, 'evidence' | 'uses'>>,
  today?: string,
): Setup | undefined {
  const printer = shelf.printers.find(({ key }) => key === names.printer)
  const nozzle = shelf.nozzles.find(({ key }) => key === names.nozzle)
  const spool = shelf.spools.find(({ key }) => key === names.spool)
  // A spool that is known to be of another material by now prints as that.
  const material = shelf.materials.find(({ key }) => key === (spool?.material ?? names.material))
  if (!printer || !nozzle || !material || (names.spool !== undefined && !spool)) return undefined
  const prints = tookOf(shelf)
  const all = spoolsNow(shelf)
  const atHand = all.filter(({ archived }) => !archived)
  const now = all.find(({ key }) => key === spool?.key)
  const setup: Setup = {
    printer: said(printer),
    nozzle: said(nozzleNow(nozzle, prints)),
    material: materialOf(said(material), spool),
    ...(spool ? { spool: said(spool) } : {}),
    ...(now && today !== undefined ? { stock: stockOf(now, atHand, material, printer.filamentDiameter, today) } : {}),
  }
  return learned(setup, shelf.evidence ?? [])
}

/** Reels as they are by now, with what was printed from each since its record was written. */
export function spoolsNow(shelf: Pick<Shelf, 'spools' | 'materials'> & Partial<Pick<Shelf, 'uses'>>): Shelf['spools'] {
  const prints = tookOf(shelf)
  const known = reels.get(shelf.spools)
  if (known?.prints === prints) return known.spools
  const spools = shelf.spools.map((spool) => spoolNow(spool, prints))
  reels.set(shelf.spools, { prints, spools })
  return spools
}

const reels = new WeakMap<object, { readonly prints: readonly Took[]; readonly spools: Shelf['spools'] }>()
const nothingTaken: readonly Took[] = []

/** What prints took, with what of it was abrasive. */
export function tookOf({ uses = [], materials }: Partial<Pick<Shelf, 'uses'>> & Pick<Shelf, 'materials'>): readonly Took[] {
  if (uses.length === 0) return nothingTaken
  // Asked for every column, of a log that may be long.
  let known = took.get(uses)
  if (!known) {
    const abrasive = new Set(materials.filter((material) => material.abrasive).map(({ key }) => key))
    known = uses.map((use) => ({ ...use, isAbrasive: abrasive.has(use.material) }))
    took.set(uses, known)
  }
  return known
}

const took = new WeakMap<object, readonly Took[]>()

/** What a record says, without what the shelf knows of it: a prediction must not depend on how often a record was changed. */
const said = <R extends Kept>({ starter: _, archived: __, revision: ___, ...record }: R): Omit<R, keyof Kept> => record

/** A key for a record, made from its name: "Lugger 250" → "lugger-250", and numbered where that is taken. */
export function keyFor(name: string, taken: readonly string[]): string {
  const stem =
    name
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9.]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 50) || 'record'
  if (!taken.includes(stem)) return stem
  let number = 2
  while (taken.includes(`${stem}-${number}`)) number++
  return `${stem}-${number}`
}
