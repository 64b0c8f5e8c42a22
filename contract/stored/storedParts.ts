import { partSchema } from '../part'
import { storedAs } from './storedAs'

export const storedReport = storedAs('report of a part', partSchema.shape.report)
