import { InputError } from '@sable/core/units/errors'
import type { Refusal } from '../ui/Notice'
import { RequestError } from './client'

/** Whatever was thrown, as something that a person can act on. */
export function asRefusal(error: unknown): Refusal {
  if (error instanceof RequestError) return { message: error.problem.detail, where: error.problem.where, remedy: error.problem.remedy }
  if (error instanceof InputError) return { message: error.message, where: error.where, remedy: error.remedy }
  return { message: error instanceof Error ? error.message : String(error), where: '', remedy: 'Reload the page and try again.' }
}
