import { type Case, caseFileSchema, type StoredCase } from '@sable/contract/cases'
import { causesAsFile } from '@sable/core/faults/passedOn'
import type { Weighed } from '@sable/core/faults/weigh'
import { InputError } from '@sable/core/units/errors'

/** A case to pass on: as it is, with what speaks for and against each cause. */
export const caseFile = ({ id: _, revision: __, changedAt: ___, ...one }: StoredCase, weighed: readonly Weighed[]): unknown => ({
  format: 'sable-lantern/case',
  version: 1,
  case: one,
  causes: causesAsFile(weighed),
})

/** @throws InputError for a file that is no case, with what is wrong where */
export function readCaseFile(text: string): Case {
  let given: unknown
  try {
    given = JSON.parse(text)
  } catch {
    throw new InputError('case-not-json', 'This file is not JSON.', 'the file', 'Choose a case that was saved as JSON on its page.')
  }
  const read = caseFileSchema.safeParse(given)
  if (read.success) return read.data.case
  const [issue] = read.error.issues
  throw new InputError(
    'case-unreadable',
    `This is no case: ${issue?.message ?? 'it cannot be read'}`,
    issue?.path.join('.') || 'the file',
    'Choose a case that was saved as JSON on its page.',
  )
}
