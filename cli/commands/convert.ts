import { basename, extname } from 'node:path'
import { write3mf } from '@sable/core/formats/write3mf'
import { writeStl } from '@sable/core/formats/writeStl'
import { place } from '@sable/core/mesh/place'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { loadPart, writeNamed } from '../files'
import { readAngles, readNumber } from '../options'
import { print } from '../report'

export function addConvert(program: Command): void {
  program
    .command('convert')
    .description('mend a model and write it as STL or 3MF')
    .argument('<model>', 'STL, 3MF or OBJ file')
    .argument('<target>', 'file to write, ending in .stl or .3mf')
    .option('--scale <factor>', 'scale the part', readNumber('--scale'), 1)
    .option('--rotate <x,y,z>', 'turn the part, degrees about each axis', readAngles, [0, 0, 0])
    .action(async (model: string, target: string, options: { scale: number; rotate: [number, number, number] }) => {
      const mesh = place((await loadPart(model)).mesh, { scale: options.scale, rotateDeg: options.rotate })
      const kind = extname(target).toLowerCase()
      if (kind !== '.stl' && kind !== '.3mf')
        throw new InputError('target-unknown', `"${kind}" is no kind of file that can be written.`, target, 'End the name in .stl or .3mf.')
      await writeNamed(target, [kind === '.3mf' ? write3mf(mesh, basename(target, kind)) : writeStl(mesh)])
      print(`${target}: ${mesh.triangles.length / 3} triangles.`)
    })
}
