import { basename } from 'node:path'
import { overrideSchema } from '@sable/core/profile/overrides'
import { greysOf, keptSize, refuseHugePicture } from '@sable/core/profile/speedPicture'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import sharp from 'sharp'
import { readNamed } from '../files'
import { readNumber } from '../options'
import { plainJson, print } from '../report'

interface Options {
  readonly to: number
  readonly from: number
  readonly dark: number
  readonly light: number
  readonly times: number
  readonly box?: readonly [number, number, number, number]
  readonly name: string
}

export function addPicture(program: Command): void {
  program
    .command('picture')
    .description('turn a picture into a place that sets the speed of the outer wall, to stand among the overrides of a profile file')
    .argument('<picture>', 'PNG or JPEG file')
    .requiredOption('--to <mm>', 'height at which it ends', readNumber('--to'))
    .option('--from <mm>', 'height at which it begins', Number, 0)
    .option('--dark <mm/s>', 'what black asks for', readNumber('--dark'), 30)
    .option('--light <mm/s>', 'what white asks for', readNumber('--light'), 90)
    .option('--times <number>', 'how often it is repeated round the part', readNumber('--times'), 1)
    .option('--box <x0,x1,y0,y1>', 'laid on the front of this box instead of wrapped round, mm from the middle of the part', readBox)
    .option('--name <name>', 'of the place', 'picture')
    .action(async (picture: string, { to, from, dark, light, times, box, name }: Options) => {
      const read = await readPicture(await readNamed(picture), basename(picture))
      const place = overrideSchema.safeParse({
        name,
        fromZ: from,
        toZ: to,
        ...(box ? { box: { minX: box[0], maxX: box[1], minY: box[2], maxY: box[3] } } : {}),
        values: {},
        picture: { ...read, lay: box ? 'laid' : 'wrapped', times, darkSpeed: dark, lightSpeed: light },
      })
      if (!place.success) {
        const [issue] = place.error.issues
        throw new InputError('picture-place', `${issue!.message}.`, issue!.path.join('.'), 'See sable picture --help for what can be told.')
      }
      print(plainJson(place.data))
    })
}

/** @throws InputError where it is no PNG or JPEG, is broken, huge, or has no contrast */
async function readPicture(bytes: Buffer, name: string) {
  const broken = (): InputError =>
    new InputError(
      'picture-unreadable',
      `${name} cannot be read as a picture.`,
      name,
      'Take a PNG or a JPEG, and save it anew if it is one.',
    )
  const open = () => sharp(bytes, { limitInputPixels: false, failOn: 'error' })
  const {
    width = 0,
    height = 0,
    format,
  } = await open()
    .metadata()
    .catch(() => {
      throw broken()
    })
  if (format !== 'png' && format !== 'jpeg') throw broken()
  refuseHugePicture(name, width, height)
  const { columns, rows } = keptSize(width, height)
  const luma = await open()
    .flatten({ background: '#ffffff' })
    .resize(columns, rows, { fit: 'fill' })
    .greyscale()
    .raw()
    .toBuffer()
    .catch(() => {
      throw broken()
    })
  return { columns, rows, greys: greysOf(luma, name) }
}

function readBox(text: string): [number, number, number, number] {
  const sides = text.split(',').map(Number)
  if (sides.length !== 4 || !sides.every(Number.isFinite))
    throw new InputError('option-no-box', `"${text}" is not four numbers.`, '--box', 'Write for example --box=-20,20,-15,15.')
  return sides as [number, number, number, number]
}
