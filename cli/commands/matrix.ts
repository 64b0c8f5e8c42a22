import { figureOf, figures } from '@sable/core/figures/figures'
import type { FigureId } from '@sable/core/figures/table/figure'
import { bestsOf, type MatrixCell, valueIn } from '@sable/core/matrix/matrix'
import { placeOf } from '@sable/core/physics/strength/purpose'
import { predict } from '@sable/core/pipeline/predict'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { nearestNames } from '@sable/core/profile/nearestNames'
import { figuresOf } from '@sable/core/search/figures'
import { carriedValues, carry } from '@sable/core/setup/carry'
import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { candidateOf, purposeOf } from '../candidate'
import { loadPart, loadProfile } from '../files'
import { findSetup } from '../findRecords'
import { openKernel } from '../openKernel'
import { type SharedOptions, withLoad } from '../options'
import { Progress } from '../progress'
import { plainJson, print } from '../report'

const kinds = ['materials', 'spools', 'printers', 'nozzles'] as const
type Across = { readonly [Kind in (typeof kinds)[number]]?: readonly string[] }

const listed = (text: string): string[] => text.split(',').map((key) => key.trim())

export function addMatrix(program: Command): void {
  withLoad(
    program
      .command('matrix')
      .description('profiles by materials, reels, printers or nozzles: one figure a cell')
      .argument('<model>', 'STL, 3MF or OBJ file')
      .argument('<profiles...>', 'profile files'),
  )
    .option('--materials <keys>', 'materials, with commas', listed)
    .option('--spools <keys>', 'reels of an exported shelf, with commas', listed)
    .option('--printers <keys>', 'printers, with commas', listed)
    .option('--nozzles <keys>', 'nozzles or bores, with commas', listed)
    .option('--figure <name>', 'figure of the table', 'time')
    .option('--as-is', 'leave values that rest on what a profile was made with as they are')
    .action(async (model: string, paths: string[], options: SharedOptions & Across & { figure: string; asIs?: boolean }) => {
      const across = kinds.filter((kind) => options[kind] !== undefined)
      if (across.length !== 1)
        throw new InputError(
          'matrix-across',
          `${across.length === 0 ? 'Nothing' : 'More than one thing'} is named to go across.`,
          kinds.map((kind) => `--${kind}`).join(', '),
          'Give one of them, for example --materials pla,petg.',
        )
      const [kind] = across as [(typeof kinds)[number]]
      const keys = options[kind]!
      const figure = figureNamed(options.figure)
      const part = await loadPart(model)
      const files = await Promise.all(paths.map(loadProfile))
      const kernel = await openKernel()
      const cache = new StageCache()
      const purpose = purposeOf(options)
      const progress = new Progress()
      const cells = files.map((file, r) =>
        keys.map((key, c): MatrixCell => {
          progress.tell(`${file.name} × ${key}`, (r * keys.length + c) / (files.length * keys.length))
          const { setup: before, values, placement, overrides } = candidateOf(file, options)
          const after = findSetup({
            printer: kind === 'printers' ? key : before.printer.key,
            nozzle: kind === 'nozzles' ? key : before.nozzle.key,
            material: kind === 'materials' ? key : before.material.key,
            ...(kind === 'spools' ? { spool: key } : {}),
          })
          const carried = options.asIs ? values : carriedValues(values, carry(values, before, after))
          try {
            const prediction = predict(part, placement, after, carried, { kernel, cache, overrides, load: placeOf(purpose) })
            return {
              figures: figuresOf(prediction, purpose),
              cautions: prediction.checks.filter(({ severity }) => severity === 'caution').length,
              checks: prediction.checks.map(({ id }) => id),
            }
          } catch (error) {
            if (!(error instanceof InputError)) throw error
            return { refused: error.sentence }
          }
        }),
      )
      progress.end()
      const names = files.map(({ name }) => name)
      if (options.json) return print(plainJson({ across: kind, columns: keys, rows: names.map((name, r) => ({ name, cells: cells[r] })) }))
      print(tableOf(names, keys, cells, figure))
    })
}

function figureNamed(name: string): FigureId {
  const known = figures.find(({ id }) => id === name)
  if (known) return known.id as FigureId
  throw new InputError(
    'figure-unknown',
    `There is no figure "${name}".`,
    '--figure',
    nearestNames(
      name,
      figures.map(({ id }) => id),
      'figures',
    ),
  )
}

/** The best of all is starred, of its row > and of its column v. */
function tableOf(names: readonly string[], keys: readonly string[], cells: readonly (readonly MatrixCell[])[], figure: FigureId): string {
  const bests = bestsOf(cells, figure, [])
  const text = (r: number, c: number): string => {
    const cell = cells[r]![c]!
    if ('refused' in cell) return 'cannot be printed'
    const { row, column, all } = bests[r]![c]!
    const value = valueIn(cell, figure)
    return `${all ? '* ' : `${row ? '>' : ''}${column ? 'v' : ''}${row || column ? ' ' : ''}`}${Number.isNaN(value) ? '-' : figureOf[figure].shown(value)}`
  }
  const first = Math.max(...names.map((name) => name.length)) + 2
  const wide = keys.map((key, c) => Math.max(key.length, ...names.map((_, r) => text(r, c).length)) + 2)
  const line = (label: string, values: readonly string[]): string =>
    label.padEnd(first) + values.map((value, c) => value.padStart(wide[c]!)).join('')
  return [
    line(figureOf[figure].label, keys),
    ...names.map((name, r) =>
      line(
        name,
        keys.map((_, c) => text(r, c)),
      ),
    ),
  ].join('\n')
}
