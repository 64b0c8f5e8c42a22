import { basename } from 'node:path'
import type { Motion } from '@sable/core/motion/planMotion'
import { moveTracks } from '@sable/core/physics/physicsFigures'
import { type LaidDown, layDown, planFor } from '@sable/core/pipeline/layDown'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { type Override, Scopes } from '@sable/core/profile/overrides'
import { programFor } from '@sable/core/program/programFor'
import { knownSetup } from '@sable/core/setup/knownSetup'
import type { Setup } from '@sable/core/setup/resolve'
import { InputError } from '@sable/core/units/errors'
import { factsOf, type MoveFacts } from '@sable/core/views/moveFacts'
import type { Command } from 'commander'
import { candidateOf } from '../candidate'
import { loadPart, loadProfile, writeNamed } from '../files'
import { openKernel } from '../openKernel'
import { readNumber, type SharedOptions, withOptions } from '../options'
import { asMoveTable, plainJson, print } from '../report'

export function addToolpath(program: Command): void {
  withOptions(
    program
      .command('toolpath')
      .description('write the program that prints a model, or tell every move of a layer')
      .argument('<model>', 'STL, 3MF or OBJ file'),
  )
    .option('--profile <file>', 'profile file')
    .option('--gcode <file>', 'where to write the program')
    .option('--absolute-filament', 'count filament from the beginning instead of from word to word')
    .option('--layer <number>', 'tell every move of this layer, the first is 1', readNumber('--layer'))
    .action(
      async (model: string, options: SharedOptions & { profile?: string; gcode?: string; absoluteFilament?: boolean; layer?: number }) => {
        if (options.gcode === undefined && options.layer === undefined)
          throw new InputError(
            'toolpath-for-what',
            'There is nothing to do with the path.',
            'toolpath',
            'Give --gcode FILE or --layer NUMBER.',
          )
        const part = await loadPart(model)
        const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
        const { setup, values, placement, overrides } = candidateOf(file, options)
        const filament = options.absoluteFilament ? 'absolute' : 'relative'
        const choice = { kernel: await openKernel(), cache: new StageCache(), overrides, partName: basename(model), filament } as const
        if (options.layer !== undefined) {
          const laid = layDown(part, placement, setup, values, choice)
          const moves = movesOfLayer(laid, setup, planFor(laid, setup, choice), overrides, options.layer)
          print(options.json ? plainJson({ layer: options.layer, moves }) : asMoveTable(moves))
        }
        if (options.gcode === undefined) return
        const pieces: string[] = []
        programFor(part, placement, setup, values, choice, (text) => pieces.push(text))
        await writeNamed(options.gcode, pieces)
        print(
          `${options.gcode}: ${pieces.reduce((sum, { length }) => sum + length, 0)} bytes. Read what stands at its beginning before you run it.`,
        )
      },
    )
}

/** @param layer counted from 1 */
function movesOfLayer(
  { path, layers, resolved }: LaidDown,
  setup: Setup,
  motion: Motion,
  overrides: readonly Override[],
  layer: number,
): MoveFacts[] {
  const count = path.layerStart.length - 1
  if (!Number.isInteger(layer) || layer > count)
    throw new InputError('layer-unknown', `There is no layer ${layer}.`, '--layer', `Give a whole number from 1 to ${count}.`)
  const from = path.layerStart[layer - 1]!
  const names = overrides.map(({ name }) => name)
  const tracks = moveTracks({ layers, path, motion, scopes: new Scopes(resolved.settings, overrides, path.sets), setup: knownSetup(setup) })
  return Array.from({ length: path.layerStart[layer]! - from }, (_, i) => factsOf(path, motion, from + i, names, tracks))
}
