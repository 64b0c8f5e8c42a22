import { basename, extname } from 'node:path'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { arranged } from '@sable/core/plate/arrange'
import { layPart } from '@sable/core/plate/layPart'
import { type PlateOrder, type PlatePart, plateOrders } from '@sable/core/plate/platePart'
import { plateProgram } from '@sable/core/plate/plateProgram'
import { type PlateFigures, plateWork } from '@sable/core/plate/plateWork'
import type { Setup } from '@sable/core/setup/resolve'
import { InputError } from '@sable/core/units/errors'
import { formatDuration } from '@sable/core/units/format'
import { doAlone } from '@sable/core/work/doAlone'
import type { Command } from 'commander'
import { candidateOf } from '../candidate'
import { loadPart, loadProfile, writeNamed } from '../files'
import { openKernel } from '../openKernel'
import { type SharedOptions, withOptions } from '../options'
import { plainJson, print } from '../report'

type Options = SharedOptions & { readonly order: string; readonly gcode?: string }

export function addPlate(program: Command): void {
  withOptions(
    program
      .command('plate')
      .description('arrange several models on one bed, tell what each and all of it takes, and write its program')
      .argument('<models...>', 'each an STL, 3MF or OBJ file, with its profile after an = sign: lid.stl=thin.json'),
  )
    .option('--order <order>', plateOrders.join(' or '), 'together')
    .option('--gcode <file>', 'where to write the program')
    .action(async (models: readonly string[], options: Options) => {
      const order = plateOrders.find((one) => one === options.order)
      if (!order)
        throw new InputError('order-unknown', `There is no order "${options.order}".`, '--order', `Write ${plateOrders.join(' or ')}.`)
      const kernel = await openKernel()
      const { parts, setup } = await laidParts(models, options, kernel)
      const standing = arranged(
        parts.map((part) => ({ ...part, turn: 0 })),
        order,
        setup.printer,
      )
      const plate = doAlone(plateWork(parts, standing, order, setup), kernel)
      const { problems, ...figures } = plate.figures
      print(
        options.json
          ? plainJson({ ...figures, order, standing, problems: problems.map(({ sentence }) => sentence) })
          : asTable(plate.figures, order, problems),
      )
      if (options.gcode === undefined) return
      const pieces: string[] = []
      plateProgram('plate', plate, setup, { filament: 'relative' }, (text) => pieces.push(text))
      await writeNamed(options.gcode, pieces)
    })
}

/** All with one setup: what differs between their profiles is their settings. */
async function laidParts(models: readonly string[], options: Options, kernel: Awaited<ReturnType<typeof openKernel>>) {
  const parts: PlatePart[] = []
  const cache = new StageCache()
  const named = new Map<string, number>()
  let setup: Setup | undefined
  for (const given of models) {
    const at = given.lastIndexOf('=')
    const [model, profile] = at < 0 ? [given, undefined] : [given.slice(0, at), given.slice(at + 1)]
    const file = profile === undefined ? undefined : await loadProfile(profile)
    const { setup: own, values, placement, overrides } = candidateOf(file, options)
    setup ??= own
    for (const what of ['printer', 'nozzle', 'material', 'spool'] as const)
      if (own[what]?.key !== setup[what]?.key)
        throw new InputError(
          'plate-setups-differ',
          `${model} is for ${own[what]?.name ?? 'no'} ${what}, what stands before it for ${setup[what]?.name ?? 'none'}.`,
          profile ?? model,
          `A plate has one ${what}: give --${what} for all of them, or make two plates.`,
        )
    const bare = basename(model, extname(model))
    const times = (named.get(bare) ?? 0) + 1
    named.set(bare, times)
    parts.push(
      layPart(times === 1 ? bare : `${bare} ${times}`, await loadPart(model), placement, own, values, { kernel, cache, overrides }),
    )
  }
  return { parts, setup: setup! }
}

function asTable(
  { parts, timeS, sharedS, startUpS, massG, cost, turns }: PlateFigures,
  order: PlateOrder,
  problems: readonly InputError[],
): string {
  const inOrder = order === 'inTurn' ? turns.map((i) => parts[i]!) : parts
  const rows = [
    ...inOrder.map((part) => [part.name, formatDuration(part.timeS), `${part.massG.toFixed(1)} g`]),
    ['ways between parts', formatDuration(sharedS), ''],
    ...(startUpS === undefined ? [] : [['heating, homing, purging', formatDuration(startUpS), '']]),
    ['all of it', formatDuration(timeS + (startUpS ?? 0)), `${massG.toFixed(1)} g`],
    ['cost', '', cost.toFixed(2)],
  ]
  const widths = [0, 1, 2].map((column) => Math.max(...rows.map((cells) => cells[column]!.length)))
  return [
    ...rows.map((cells) => cells.map((cell, i) => (i === 0 ? cell.padEnd(widths[0]!) : cell.padStart(widths[i]!))).join('  ')),
    ...problems.map(({ sentence }) => `! ${sentence}`),
  ].join('\n')
}
