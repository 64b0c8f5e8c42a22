import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { overrideSchema } from './overrides'
import { greyAt, greysOf, keptSize, MOST_PIXELS, refuseHugePicture, speedOfGrey, speedPictureSchema } from './speedPicture'

const picture = { columns: 2, rows: 2, greys: '0f7a', lay: 'wrapped', darkSpeed: 40, lightSpeed: 100 } as const

describe('a picture that sets speed', () => {
  it('is kept with as many pixels as are allowed, in its own shape', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20_000 }), fc.integer({ min: 1, max: 20_000 }), (width, height) => {
        const { columns, rows } = keptSize(width, height)
        expect(columns * rows).toBeLessThanOrEqual(MOST_PIXELS)
        expect(columns).toBeLessThanOrEqual(Math.max(width, 1))
        expect(rows).toBeGreaterThanOrEqual(1)
        // Whole pixels are all that its shape loses, but for strips that are longer than any bed.
        if (columns > 50 && rows > 50) expect(columns / rows / (width / height)).toBeCloseTo(1, 1)
      }),
    )
    expect(keptSize(100, 50)).toEqual({ columns: 100, rows: 50 })
  })

  it('is drawn out from black to white, and between them evenly', () => {
    expect(greysOf([60, 120, 180], 'ramp.png')).toBe('08f')
    const own = speedPictureSchema.parse(picture)
    expect([0, 1].flatMap((row) => [0, 1].map((column) => greyAt(own, column, row)))).toEqual([0, 15, 7, 10])
    expect([0, 5, 15].map((grey) => speedOfGrey(own, grey))).toEqual([40, 60, 100])
  })

  it('is refused where it has no contrast or is huge, by name and with what to do', () => {
    expect(() => greysOf([128, 130, 129], 'fog.jpg')).toThrow(/fog\.jpg is nearly the same grey everywhere \(128 to 130 of 255\)/)
    expect(() => refuseHugePicture('wall.png', 10_000, 10_000)).toThrow(/wall\.png has 100 megapixels \(10000 × 10000\); 24 are opened/)
    expect(() => refuseHugePicture('small.png', 4000, 3000)).not.toThrow()
  })

  it('is refused where its digits do not fit, or its place does not say how high it is', () => {
    const place = (over: object, more: object = {}) =>
      overrideSchema.safeParse({ name: 'here', fromZ: 0, toZ: 10, values: {}, picture: { ...picture, ...over }, ...more })
    expect(place({}).success).toBe(true)
    expect(place({ greys: '0f7' }).error?.issues[0]?.message).toContain('2 × 2 pixels are told by as many digits, not 3')
    expect(place({ greys: 'xy7a' }).error?.issues[0]?.message).toContain('hexadecimal')
    expect(place({ columns: 4000, rows: 4000 }).error?.issues[0]?.message).toContain('32,768')
    expect(place({}, { toZ: undefined }).error?.issues[0]?.path).toEqual(['toZ'])
    expect(place({ lay: 'laid' }).error?.issues[0]?.path).toEqual(['box'])
  })
})
