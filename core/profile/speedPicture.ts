import { z } from 'zod'
import { InputError } from '../units/errors'

/** Most pixels of a picture: finer than a nozzle can follow on parts that fit a bed, and small enough to lie in a profile. */
export const MOST_PIXELS = 1 << 15
/** Greys, from black to white. */
export const GREYS = 16
/** Between the darkest and the lightest pixel a picture must have at least so many greys. */
const LEAST_CONTRAST = 2

/**
 * A grey picture that sets the speed of the outer wall: laid on the front half of a place's box, or wrapped round its middle,
 * from the place's lowest to its highest layer. Black asks for one speed, white for the other.
 */
export const speedPictureSchema = z
  .object({
    columns: z.number().int().min(1).max(4096),
    rows: z.number().int().min(1).max(4096),
    /** One hexadecimal digit a pixel, 0 black to f white, row by row from the top left. */
    greys: z.string().regex(/^[0-9a-f]+$/, 'Greys are hexadecimal digits.'),
    lay: z.enum(['wrapped', 'laid']),
    /** How often it is repeated round the part. */
    times: z.number().int().min(1).max(24).default(1),
    /** mm/s */
    darkSpeed: z.number().min(1).max(1000),
    lightSpeed: z.number().min(1).max(1000),
  })
  .superRefine(({ columns, rows, greys }, context) => {
    if (columns * rows > MOST_PIXELS)
      context.addIssue({ code: 'custom', path: ['greys'], message: `A picture has at most ${MOST_PIXELS.toLocaleString('en')} pixels.` })
    else if (greys.length !== columns * rows)
      context.addIssue({
        code: 'custom',
        path: ['greys'],
        message: `${columns} × ${rows} pixels are told by as many digits, not ${greys.length}.`,
      })
  })
export type SpeedPicture = z.infer<typeof speedPictureSchema>

/** Grey of a pixel, 0 black to 15 white. */
export const greyAt = ({ columns, greys }: SpeedPicture, column: number, row: number): number =>
  Number.parseInt(greys[row * columns + column]!, GREYS)

/** What a grey asks of the outer wall, mm/s. */
export const speedOfGrey = ({ darkSpeed, lightSpeed }: SpeedPicture, grey: number): number =>
  darkSpeed + ((lightSpeed - darkSpeed) * grey) / (GREYS - 1)

/** How large a picture of some size is kept: as many pixels as are allowed, in its own shape. */
export function keptSize(width: number, height: number): { readonly columns: number; readonly rows: number } {
  const share = Math.min(1, Math.sqrt(MOST_PIXELS / (width * height)))
  const columns = Math.max(1, Math.min(4096, Math.floor(width * share)))
  return { columns, rows: Math.max(1, Math.min(4096, Math.floor(height * share), Math.floor(MOST_PIXELS / columns))) }
}

/**
 * Greys of a picture, drawn out so that the darkest pixel is black and the lightest white.
 *
 * @param luma of each pixel, 0–255, row by row from the top left
 * @throws InputError where it has no contrast
 */
export function greysOf(luma: ArrayLike<number>, name: string): string {
  let [darkest, lightest] = [255, 0]
  for (let i = 0; i < luma.length; i++) {
    darkest = Math.min(darkest, luma[i]!)
    lightest = Math.max(lightest, luma[i]!)
  }
  if (lightest - darkest < (LEAST_CONTRAST * 256) / GREYS)
    throw new InputError(
      'picture-flat',
      `${name} is nearly the same grey everywhere (${darkest} to ${lightest} of 255): nothing of it would be seen on a part.`,
      'picture',
      'Take a picture with light and dark parts.',
    )
  let greys = ''
  for (let i = 0; i < luma.length; i++) greys += Math.round(((luma[i]! - darkest) / (lightest - darkest)) * (GREYS - 1)).toString(GREYS)
  return greys
}

/** Larger than this, in pixels, no picture is opened: it would fill the memory of the machine that opens it. */
export const LARGEST_PICTURE = 24_000_000

/** @throws InputError where a picture is too large to be opened */
export function refuseHugePicture(name: string, width: number, height: number): void {
  if (width * height <= LARGEST_PICTURE) return
  throw new InputError(
    'picture-huge',
    `${name} has ${((width * height) / 1e6).toFixed(0)} megapixels (${width} × ${height}); ${LARGEST_PICTURE / 1e6} are opened at most.`,
    'picture',
    `Make it smaller first: no more than ${MOST_PIXELS.toLocaleString('en')} pixels of it can be printed anyway.`,
  )
}
