import { greysOf, keptSize, refuseHugePicture, type SpeedPicture } from '@sable/core/profile/speedPicture'
import { InputError } from '@sable/core/units/errors'
import { imageSize } from 'image-size'

/** Enough of a file to tell how large its picture is, bytes: some carry a preview before it. */
const HEAD = 1 << 18

/**
 * A picture's file as greys on white, as many pixels as are kept.
 *
 * @throws InputError where it is no PNG or JPEG, is broken, huge, or has no contrast
 */
export async function readPicture(file: File): Promise<Pick<SpeedPicture, 'columns' | 'rows' | 'greys'>> {
  const { width, height } = sizeOf(new Uint8Array(await file.slice(0, HEAD).arrayBuffer()), file.name)
  refuseHugePicture(file.name, width, height)
  const { columns, rows } = keptSize(width, height)
  const bitmap = await createImageBitmap(file, { resizeWidth: columns, resizeHeight: rows, resizeQuality: 'high' }).catch(() => {
    throw broken(file.name)
  })
  const canvas = new OffscreenCanvas(columns, rows)
  const context = canvas.getContext('2d')!
  context.fillStyle = '#ffffff'
  context.fillRect(0, 0, columns, rows)
  context.drawImage(bitmap, 0, 0)
  bitmap.close()
  return { columns, rows, greys: greysOf(lumaOf(context.getImageData(0, 0, columns, rows).data), file.name) }
}

/** Pixels of a picture's file, told by its head alone. @throws InputError where it is no PNG or JPEG */
export function sizeOf(head: Uint8Array, name: string): { readonly width: number; readonly height: number } {
  try {
    const { width, height, type } = imageSize(head)
    if (type === 'png' || type === 'jpg') return { width, height }
  } catch {
    throw broken(name)
  }
  throw broken(name)
}

/** Brightness of red, green, blue and opacity by fours, 0–255 (Rec. 709, from memory). */
export const lumaOf = (rgba: ArrayLike<number>): Uint8Array =>
  Uint8Array.from({ length: rgba.length / 4 }, (_, i) =>
    Math.round(0.2126 * rgba[4 * i]! + 0.7152 * rgba[4 * i + 1]! + 0.0722 * rgba[4 * i + 2]!),
  )

const broken = (name: string): InputError =>
  new InputError(
    'picture-unreadable',
    `${name} cannot be read as a picture.`,
    'picture',
    'Take a PNG or a JPEG, and save it anew if it is one.',
  )
