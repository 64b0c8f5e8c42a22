import { connect, type Socket } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { truthFrom } from '../truth'
import { checksumOf, Firmware } from './firmware'
import { Machine, type mishapKinds } from './machine'
import { cornerSpeed, MoveBuffer } from './planner'
import { type StandinPrinter, servePrinter } from './serve'

const plainTruth = { ...truthFrom(1), accelerationFactor: 1, pace: 1, startS: 0, thermometer: 0, nozzleTauS: 40, bedTauS: 90 }
const numbered = (number: number, text: string): string => {
  const line = `N${number} ${text}`
  return `${line}*${checksumOf(line)}`
}

describe('a planner with a finite buffer', () => {
  const straight = (length: number, entry: number) => ({
    length,
    along: [1, 0, 0] as const,
    speed: 100,
    acceleration: 1000,
    entry,
    feed: 0,
    z: 0,
    from: [0, 0] as const,
    to: [length, 0] as const,
  })

  it('alone takes a trapezoid: 100 mm at 100 mm/s and 1000 mm/s² are 1.1 s', () => {
    const buffer = new MoveBuffer(8)
    buffer.add(straight(100, 0))
    // v/a up, v/a down, and the rest of the way at speed: 0.1 + 0.1 + 0.9.
    expect(buffer.next()!.seconds).toBeCloseTo(1.1, 9)
  })

  it('two moves in one line take as long as one of their length', () => {
    const buffer = new MoveBuffer(8)
    buffer.add(straight(60, 0))
    buffer.add(straight(40, 100))
    expect(buffer.next()!.seconds + buffer.next()!.seconds).toBeCloseTo(1.1, 9)
  })

  it('a short move between stops is a triangle: 1 mm at 1000 mm/s² is 2·√(1/1000) s', () => {
    const buffer = new MoveBuffer(8)
    buffer.add(straight(1, 0))
    expect(buffer.next()!.seconds).toBeCloseTo(2 * Math.sqrt(1 / 1000), 9)
  })

  it('a right corner asks each axis for no more than it bears at once, a straight one for nothing', () => {
    const before = { along: [1, 0, 0] as const, speed: 100 }
    expect(cornerSpeed(before, [0, 1, 0], 100)).toBe(8)
    expect(cornerSpeed(before, [1, 0, 0], 80)).toBe(80)
  })
})

describe('its firmware', () => {
  const opened = () => {
    const told: string[] = []
    const firmware = new Firmware(new Machine(plainTruth), (line) => told.push(line))
    told.length = 0
    return { firmware, told }
  }

  it('takes lines in their order, each with its checksum, and asks again for what is damaged', () => {
    const { firmware, told } = opened()
    firmware.receive('N0 M110*35')
    firmware.receive(numbered(1, 'G90'))
    firmware.receive(numbered(3, 'G91'))
    firmware.receive(`${numbered(2, 'G91')}7`)
    firmware.receive(numbered(2, 'M83'))
    expect(told.filter((line) => line === 'ok')).toHaveLength(5)
    expect(told.filter((line) => line.startsWith('Resend'))).toEqual(['Resend: 2', 'Resend: 2'])
  })

  it('the checksum is the XOR of its characters, as open firmware has it', () => {
    // "N3 T0*57" is the worked example of the public description of the protocol (from memory).
    expect(checksumOf('N3 T0')).toBe(57)
  })

  it('heats by its own time constants, says that it is busy, and goes on when it is there', () => {
    const { firmware, told } = opened()
    firmware.receive('M109 S210')
    firmware.receive('G1 X10 F6000')
    expect(told).toEqual(['ok'])
    let seconds = 0
    while (told.filter((line) => line === 'ok').length < 2 && seconds < 600) {
      firmware.advance(0.5)
      seconds += 0.5
    }
    expect(seconds).toBeGreaterThan(20)
    expect(seconds).toBeLessThan(300)
    expect(told.filter((line) => line.includes('busy')).length).toBeGreaterThan(5)
    expect(told.some((line) => /^T:2\d\d\.\d \/210/.test(line))).toBe(true)
  })

  it('halted at once it answers nothing but that, and its heaters are off', () => {
    const { firmware, told } = opened()
    firmware.receive('M104 S210')
    firmware.receive('M112')
    firmware.receive('G1 X10')
    expect(told.slice(-2).every((line) => line.startsWith('Error:Printer halted'))).toBe(true)
    expect(firmware.machine.nozzle.target).toBe(0)
  })

  it('left alone while hot turns its heaters off and says so', () => {
    const { firmware, told } = opened()
    firmware.receive('M104 S210')
    for (let second = 0; second < 700; second++) firmware.advance(1)
    expect(told.join()).toContain('Nobody spoke for 600 s. Heaters are off.')
    expect(firmware.machine.nozzle.target).toBe(0)
  })

  it('too cold to melt, it moves and feeds nothing', () => {
    const { firmware } = opened()
    for (const line of ['M83', 'G1 Z0.2 F600', 'G1 X20 E2 F1200']) firmware.receive(line)
    for (let i = 0; i < 20; i++) firmware.advance(0.5)
    expect(firmware.machine.making.layers.reduce((sum, { feed }) => sum + feed, 0)).toBe(0)
  })
})

describe('what can be made to go wrong', () => {
  const printed = (kind: (typeof mishapKinds)[number]) => {
    const machine = new Machine(plainTruth)
    machine.mishap = { kind, atZ: 0.6 }
    const firmware = new Firmware(machine, () => {})
    const lines = [
      'M83',
      'M104 S200',
      'M109 S200',
      ...[1, 2, 3, 4, 5].flatMap((n) => [`G1 Z${(0.2 * n).toFixed(1)} F600`, 'G1 X20 E1 F1200', 'G1 X0 E1']),
    ]
    for (const line of lines) firmware.receive(line)
    for (let i = 0; i < 2000; i++) firmware.advance(0.2)
    return machine
  }

  it('a jam and an empty reel lay nothing from there on, though it moves; shifted layers are shifted', () => {
    for (const kind of ['jam', 'runOut'] as const) {
      const machine = printed(kind)
      expect(machine.struck).toBe(kind)
      expect(machine.making.layers.filter(({ feed }) => feed > 0).map(({ z }) => z)).toEqual([0.2, 0.4])
      expect(machine.making.layers).toHaveLength(5)
    }
    expect(printed('shift').shiftedMm).toBeGreaterThan(0)
  })
})

describe('over the wire', () => {
  let printer: StandinPrinter | undefined
  let socket: Socket | undefined
  afterEach(async () => {
    socket?.destroy()
    await printer?.close()
  })

  it('a square is drawn line by line, by a clock that runs faster than the wall’s', async () => {
    printer = await servePrinter({ seed: 3, port: 0, times: 200 })
    const lines: string[] = []
    socket = connect(printer.port, '127.0.0.1')
    let rest = ''
    socket.on('data', (bytes) => {
      rest += bytes.toString()
      const all = rest.split('\n')
      rest = all.pop()!
      lines.push(...all)
    })
    const program = ['M83', 'M109 S200', 'G28', 'G1 Z0.2 F600', 'G1 X50 E2 F3000', 'G1 Y50 E2', 'G1 X0 E2', 'G1 Y0 E2', 'M400']
    socket.write(['N0 M110*35', ...program.map((text, i) => numbered(i + 1, text))].map((line) => `${line}\n`).join(''))
    await expect.poll(() => lines.filter((line) => line.startsWith('ok')).length, { timeout: 20_000 }).toBe(program.length + 1)
    await expect.poll(() => printer!.machine.isIdle, { timeout: 20_000 }).toBe(true)
    expect(printer.machine.making.layers).toHaveLength(1)
    expect(printer.machine.making.layers[0]!.feed).toBeCloseTo(8, 6)
    // 200 mm at 50 mm/s, with four corners and its own pace.
    const seconds = printer.machine.making.layers[0]!.seconds / printer.machine.truth.pace
    expect(seconds).toBeGreaterThan(4)
    expect(seconds).toBeLessThan(4.5)
  })
})
