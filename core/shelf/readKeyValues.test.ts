import { describe, expect, it } from 'vitest'
import { readKeyValues } from './readKeyValues'
import { readLimits } from './readLimits'

const config = `
[machine]
kinematics: crossed
max_velocity: 350   # on both
max_accel = 6000
max_z_velocity: 18
max_z_accel: 150
square_corner_velocity: 6.5
[feeder]
max_extrude_only_velocity: 55
rotation_distance: 22.6
`

describe('a configuration of keys and values', () => {
  it('tells its limits, whatever stands between', () => {
    expect(readKeyValues(config)).toEqual({
      limits: { speed: { x: 350, y: 350, z: 18 }, acceleration: { x: 6000, y: 6000, z: 150 }, extruderSpeed: 55 },
      cornerSchool: 'deviation',
      record: {},
      defaults: { acceleration: 6000, travelAcceleration: 6000, cornerSpeed: 6.5 },
      remarks: [],
    })
  })

  it('of one axis goes before that of all', () => {
    expect(readKeyValues('max_x_velocity: 200\nmax velocity: 300')!.limits.speed).toEqual({ x: 200, y: 300 })
  })

  it('is read wherever limits are pasted, and text without any says so', () => {
    expect(readLimits(config).limits.speed.x).toBe(350)
    expect(readLimits('M201 X3000').limits.acceleration.x).toBe(3000)
    expect(readLimits('hello: 3').remarks.join()).toContain('There is no line with M201')
    expect(readKeyValues('max_velocity: fast\nmax_accel: -3')).toBeUndefined()
  })
})
