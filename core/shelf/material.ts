import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'

export const basisSchema = z.enum(['measured', 'calculated', 'assumed'])
/** Where a number comes from: the user's own tests, a cited model, or a default. */
export type Basis = z.infer<typeof basisSchema>

export const temperatureRange = z
  .tuple([z.number().min(0).max(600), z.number().min(0).max(600)])
  .refine(([low, high]) => low <= high, 'The first temperature must not be higher than the second.')

export const ladderSchema = z.array(z.object({ temperature: z.number().min(100).max(600), flow: z.number().positive().max(200) })).max(40)

/** A kind of filament. Densities g/cm³, strengths and moduli MPa, temperatures °C, price per kilogram. */
export const materialSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  family: z.enum(['PLA', 'PETG', 'flexible', 'woodPLA', 'ABS', 'nylon']),
  density: z.number().positive(),
  pricePerKg: z.number().min(0),
  nozzleRange: temperatureRange,
  bedRange: temperatureRange,
  /** Flow that it takes through a given hot end, as a multiple of plain PLA's. */
  flowFactor: z.number().positive(),
  /** Wears soft nozzles: carbon, glass, metal or glow pigments. */
  abrasive: z.boolean().optional(),
  /** Holds fibres or wood, which lie across small bores. */
  fibre: z.boolean().optional(),
  /** How fast it takes up water from the air. */
  moisture: z.enum(['slow', 'middling', 'fast']).optional(),
  /** Flows at which it was seen to fail, mm³/s, at nozzle temperatures, °C: the user's own measurements. */
  ladder: ladderSchema.optional(),
  /** W/(m·K), J/(kg·K) and °C, where they are known better than the family's. */
  heat: z.object({ conductivity: z.number().positive(), specificHeat: z.number().positive(), softening: z.number() }).partial().optional(),
  strength: z.object({
    /** Tensile strength along laid lines. */
    inLayer: z.number().positive(),
    modulus: z.number().positive(),
    /** Strength between layers as a share of `inLayer`. */
    bondFactor: z.number().positive().max(1),
    basis: basisSchema,
  }),
  defaults: settingValuesSchema,
})
export type Material = z.infer<typeof materialSchema>

/** Holds fibres or wood, which lie across small bores and clog when they are laid slowly. */
export const isFilled = ({ fibre, family }: Pick<Material, 'fibre' | 'family'>): boolean => fibre ?? family === 'woodPLA'
