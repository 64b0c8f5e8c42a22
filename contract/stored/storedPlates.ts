import { plateSchema } from '../plate'
import { storedAs } from './storedAs'

export const storedPlate = storedAs('plate', plateSchema)
