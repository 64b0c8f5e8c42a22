import { caseSchema } from '../cases'
import { storedAs } from './storedAs'

export const storedCase = storedAs('case', caseSchema)
