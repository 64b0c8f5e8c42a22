import { describe, expect, it } from 'vitest'
import { addressIn, isLoopback } from './address'

describe('the address of a machine', () => {
  it('is a host and a port, or none', () => {
    expect(addressIn('127.0.0.1:4831')).toEqual({ host: '127.0.0.1', port: 4831 })
    expect(addressIn('127.0.0.1')).toBeUndefined()
    expect(addressIn('a b:1')).toBeUndefined()
  })

  it('is of this computer only where it is so by number or by name, not where it begins like that', () => {
    expect(['localhost', '127.0.0.1', '127.1.2.3'].every(isLoopback)).toBe(true)
    expect(['127.example.org', 'localhost.example.org', '127.0.0.1.example.org', '192.168.0.4', ''].some(isLoopback)).toBe(false)
  })
})
