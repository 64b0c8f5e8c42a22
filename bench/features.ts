import { openKernel } from '@sable/cli/openKernel'
import { predict } from '@sable/core/pipeline/predict'
import { arranged } from '@sable/core/plate/arrange'
import { layPart } from '@sable/core/plate/layPart'
import { plateWork } from '@sable/core/plate/plateWork'
import type { Override } from '@sable/core/profile/overrides'
import type { SettingValues } from '@sable/core/profile/settings'
import { programFor } from '@sable/core/program/programFor'
import type { Setup } from '@sable/core/setup/resolve'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { mushroom } from '@sable/core/testing/paths'
import { partOf } from '@sable/core/testing/solids'
import { doAlone } from '@sable/core/work/doAlone'
import { carryHook } from '@sable/demo/parts/carryHook'
import { finial } from '@sable/demo/parts/finial'

/** What features of paths cost: whole predictions in one thread, nothing remembered, each against a plain one of the same part. */
const ROUNDS = 7

const setup: Setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const kernel = await openKernel()
const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
const here = { minX: -40, maxX: 0, minY: -40, maxY: 40 }
const [hook, pot, overhanging] = [partOf('hook', carryHook()), partOf('finial', finial()), partOf('mushroom', mushroom())]

/** Squares of so many pixels, black and white in turn. */
function checks(pixels: number, square: number): string {
  const at = (i: number): number => Math.floor(i / square)
  return Array.from({ length: pixels * pixels }, (_, i) => ((at(i % pixels) + at(Math.floor(i / pixels))) % 2 === 0 ? '0' : 'f')).join('')
}

interface Feature {
  readonly part: typeof hook
  readonly plain?: SettingValues
  readonly values?: SettingValues
  readonly overrides?: readonly Override[]
}
const features: Readonly<Record<string, Feature>> = {
  spiralWall: { part: pot, values: { spiralWall: 'on' } },
  smallLoops: { part: hook, values: { smallLoopSpeed: 15, smallLoopLength: 40 } },
  extraWall: { part: hook, values: { extraWall: 'everySecond' } },
  bottoms: { part: hook, values: { bottomPattern: 'concentric' } },
  fanRamp: { part: hook, values: { fanFromLayer: 4, fanRampLayers: 3 } },
  supportsHere: {
    part: overhanging,
    plain: { supports: 'plain' },
    overrides: [{ name: 'here', fromZ: 0, box: here, values: { supports: 'plain', supportAngle: 50, supportDensity: 20 } }],
  },
  turnedBox: {
    part: hook,
    overrides: [{ name: 'here', fromZ: 0, box: { minX: -10, maxX: 20, minY: -20, maxY: 20, turn: 30 }, values: { infillDensity: 60 } }],
  },
  picture: {
    part: pot,
    overrides: [
      {
        name: 'sign',
        fromZ: 0,
        toZ: 92,
        values: {},
        picture: { columns: 64, rows: 64, greys: checks(64, 8), lay: 'wrapped', times: 1, darkSpeed: 30, lightSpeed: 90 },
      },
    ],
  },
}

const median = (samples: readonly number[]): number => [...samples].sort((a, b) => a - b)[samples.length >> 1]!
const timed = (work: () => void): number => {
  const from = performance.now()
  work()
  return performance.now() - from
}
/** In turn, so that a machine that turns slower in between moves both alike. */
function compared(figure: string, plain: () => void, work: () => void): void {
  plain()
  work()
  const rounds = Array.from({ length: ROUNDS }, () => [timed(plain), timed(work)] as const)
  const ratio = median(rounds.map(([before, after]) => after / before))
  const medianMs = Number(median(rounds.map(([, after]) => after)).toFixed(1))
  process.stdout.write(
    `${JSON.stringify({ figure, medianMs, ratio: Number(ratio.toFixed(2)), to: 'the same part without it', rounds: ROUNDS })}\n`,
  )
}

for (const [name, { part, plain = {}, values = {}, overrides }] of Object.entries(features))
  compared(
    `features.${name}`,
    () => predict(part, placement, setup, plain, { kernel }),
    () => predict(part, placement, setup, overrides ? values : { ...plain, ...values }, { kernel, ...(overrides ? { overrides } : {}) }),
  )
const written = (arcs: boolean) => (): void =>
  programFor(
    pot,
    placement,
    { ...setup, printer: { ...setup.printer, arcs } },
    {},
    { kernel, partName: 'finial', filament: 'relative' },
    () => {},
  )
compared('features.arcs', written(false), written(true))

/** A plate joins and plans what its parts have laid already: against planning them one by one. */
const parts = [hook, pot].map((part) => layPart(part.key, part, placement, setup, {}, { kernel }))
const standing = arranged(
  parts.map((part) => ({ ...part, turn: 0 })),
  'together',
  setup.printer,
)
compared(
  'features.plate',
  () => {
    for (const part of parts) doAlone(plateWork([part], [{ x: 0, y: 0, turn: 0 }], 'together', setup), kernel)
  },
  () => doAlone(plateWork(parts, standing, 'together', setup), kernel),
)
