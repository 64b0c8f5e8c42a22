import { materialSchema } from '@sable/core/shelf/material'
import { nozzleSchema, printerSchema } from '@sable/core/shelf/printer'
import { z } from 'zod'

export const shelfSchema = z.object({
  printers: z.array(printerSchema),
  nozzles: z.array(nozzleSchema),
  materials: z.array(materialSchema),
})
export type Shelf = z.infer<typeof shelfSchema>
