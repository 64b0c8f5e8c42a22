import { figuresSchema } from '@sable/core/search/figures'
import { z } from 'zod'
import { searchContextSchema, searchSpecSchema } from '../search'
import { storedAs } from './storedAs'
import { baseOverrides, gramsBecomeFilament, specWeighsFilament } from './upgrades'

export const storedSpec = storedAs('search', searchSpecSchema, [(spec) => specWeighsFilament(baseOverrides(spec))])
export const storedContext = storedAs('shelf of a search', searchContextSchema)
export const storedChoices = storedAs('variant', z.array(z.number().int()))
export const storedFigures = storedAs('list of figures', figuresSchema, [gramsBecomeFilament])
