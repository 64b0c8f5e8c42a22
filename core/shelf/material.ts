import { z } from 'zod'
import { settingValuesSchema } from '../profile/settings'

export const basisSchema = z.enum(['measured', 'calculated', 'assumed'])
/** Where a number comes from: the user's own tests, a cited model, or a default. */
export type Basis = z.infer<typeof basisSchema>

const range = z.tuple([z.number(), z.number()])

/** A kind of filament. Densities g/cm³, strengths and moduli MPa, temperatures °C, price per kilogram. */
export const materialSchema = z.object({
  key: z.string().regex(/^[a-z0-9.-]+$/),
  name: z.string().min(1).max(80),
  family: z.enum(['PLA', 'PETG', 'flexible', 'woodPLA', 'ABS']),
  density: z.number().positive(),
  pricePerKg: z.number().min(0),
  nozzleRange: range,
  bedRange: range,
  /** Flow that it takes through a given hot end, as a multiple of plain PLA's. */
  flowFactor: z.number().positive(),
  /** Flows at which it was seen to fail, mm³/s, at nozzle temperatures, °C: the user's own measurements. */
  ladder: z.array(z.object({ temperature: z.number().min(100).max(600), flow: z.number().positive() })).optional(),
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
