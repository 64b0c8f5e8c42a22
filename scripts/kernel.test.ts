import { kernelBytes } from '@sable/core/elements/kernel/kernelBytes'
import { expect, it } from 'vitest'
import { kernelSource } from './lib/kernelSource'

it('the kernel that is kept is the one that its source gives', async () => {
  const made = await kernelSource()
  expect(made).toContain(`'${kernelBytes}'`)
})
