import { connect } from 'node:net'
import { describe, expect, it } from 'vitest'
import { Machine } from './printer/machine'
import { reelLeft, serveScale } from './scale'
import { truthFrom } from './truth'

describe('a scale with a reel on it', () => {
  const machine = new Machine({ ...truthFrom(4), flowFactor: 1.05 })
  machine.fedMm = 1000

  it('shows what the machine has taken: a metre of 1.75 mm filament at 1.24 g/cm³ is 2.98 g, by its own flow', () => {
    expect(500 - reelLeft(500, machine)).toBeCloseTo(2.98 * 1.05, 2)
  })

  it('says so line by line, about right', async () => {
    const scale = await serveScale({ seed: 1, port: 0, grossG: 500, machine })
    const socket = connect(scale.port, '127.0.0.1')
    const text = await new Promise<string>((done) => socket.once('data', (bytes) => done(bytes.toString())))
    expect(Number(/([\d.]+) g/.exec(text)![1])).toBeCloseTo(496.9, -1)
    socket.destroy()
    await scale.close()
  })
})
