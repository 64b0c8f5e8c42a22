import { openKernel } from '@sable/cli/openKernel'
import { brickStiffness } from '@sable/core/elements/brick'
import { isotropic } from '@sable/core/elements/elasticity'
import { type Mesh, meshOf } from '@sable/core/elements/mesh'
import { readyWork } from '@sable/core/elements/ready'
import { solveWork } from '@sable/core/elements/solve'
import { cellsOf } from '@sable/core/elements/testing/blocks'
import { caseAlong } from '@sable/core/physics/solved/casesAlong'
import { voxelsOf } from '@sable/core/physics/solved/voxels'
import { usualGrip } from '@sable/core/physics/strength/grip'
import { layDown } from '@sable/core/pipeline/layDown'
import { predict } from '@sable/core/pipeline/predict'
import { solvedWork } from '@sable/core/pipeline/solvedWork'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import { partOf } from '@sable/core/testing/solids'
import { runToEnd } from '@sable/core/units/steps'
import { carryHook } from '@sable/demo/parts/carryHook'

/** What strength by finite elements costs, against bare products with the whole matrix of the same mesh. */
const ROUNDS = 7

function median(work: () => void): number {
  work()
  const all = Array.from({ length: ROUNDS }, () => {
    const from = performance.now()
    work()
    return performance.now() - from
  }).sort((a, b) => a - b)
  return all[ROUNDS >> 1]!
}

/** Milliseconds of a product with a mesh's matrix, row by row with the columns of what is not nothing. */
function bareProduct(mesh: Mesh): number {
  const k = brickStiffness(mesh.size, isotropic(2000, 0.35))
  const near = Array.from({ length: mesh.nodeCount }, () => new Map<number, Float64Array>())
  for (let c = 0; c < mesh.share.length; c++)
    for (let n = 0; n < 8; n++)
      for (let m = 0; m < 8; m++) {
        const row = near[mesh.nodes[8 * c + n]!]!
        const other = mesh.nodes[8 * c + m]!
        const block = row.get(other) ?? new Float64Array(9)
        for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) block[3 * i + j]! += mesh.share[c]! * k[24 * (3 * n + i) + 3 * m + j]!
        row.set(other, block)
      }
  const count = near.reduce((sum, row) => sum + 9 * row.size, 0)
  const [rows, columns, values] = [new Int32Array(3 * mesh.nodeCount + 1), new Int32Array(count), new Float64Array(count)]
  let at = 0
  for (const [n, row] of near.entries())
    for (let i = 0; i < 3; i++) {
      for (const [m, block] of row)
        for (let j = 0; j < 3; j++) {
          columns[at] = 3 * m + j
          values[at++] = block[3 * i + j]!
        }
      rows[3 * n + i + 1] = at
    }
  const [x, y] = [new Float64Array(3 * mesh.nodeCount).fill(1), new Float64Array(3 * mesh.nodeCount)]
  return median(() => {
    for (let i = 0; i < y.length; i++) {
      let sum = 0
      for (let e = rows[i]!; e < rows[i + 1]!; e++) sum += values[e]! * x[columns[e]!]!
      y[i] = sum
    }
  })
}

const tell = (figure: string, ms: number, bare: number, more: object = {}): void =>
  void process.stdout.write(
    `${JSON.stringify({ figure: `strength.${figure}`, ms: Number(ms.toFixed(1)), ratio: Number((ms / bare).toPrecision(2)), to: 'one bare sparse product', ...more })}\n`,
  )

const kernel = await openKernel()
const setup = { printer: starterPrinters[1]!, nozzle: starterNozzles[1]!, material: starterMaterials[0]! }
const part = partOf('hook', carryHook())
const placement = { scale: 1, rotateDeg: [0, 0, 0] as [number, number, number] }
const choice = { kernel, cache: new StageCache() }
const laid = layDown(part, placement, setup, {}, choice)
const prediction = predict(part, placement, setup, {}, choice)
const hook = meshOf(voxelsOf(laid.single, 0.9))
const bareHook = bareProduct(hook)
const solveHook = (from = laid, of = prediction): unknown =>
  runToEnd(solvedWork(from, of, setup, (extent) => caseAlong(extent, 'y', 'bend', usualGrip)))
tell('hook', median(solveHook as () => void), bareHook, { cells: hook.share.length, loads: 2 })
let density = 15
tell(
  'infillEdit',
  median(() => {
    const values = { infillDensity: density++ }
    solveHook(layDown(part, placement, setup, values, choice), predict(part, placement, setup, values, choice))
  }),
  bareHook,
)

const mesh = meshOf(cellsOf([60, 46, 38], [0.9, 0.9, 0.9]))
const bare = bareProduct(mesh)
const held = new Uint8Array(3 * mesh.nodeCount)
const forces = new Float64Array(3 * mesh.nodeCount)
for (let n = 0; n < mesh.nodeCount; n++) {
  const x = mesh.nodeAt[n]! % (mesh.counts[0] + 1)
  if (x === 0) held.fill(1, 3 * n, 3 * n + 3)
  if (x === mesh.counts[0]) forces[3 * n + 2] = 1
}
for (const isPlain of [false, true]) {
  const name = isPlain ? 'plain' : 'vectors'
  const ready = runToEnd(readyWork(mesh, [isotropic(2000, 0.35)], held, isPlain))
  const { kernel: own, cells, single, double } = ready
  tell(
    `${name}.product`,
    median(() => own.springs(cells, single.x, single.r)),
    bare,
    { cells: cells.count },
  )
  tell(
    `${name}.productDouble`,
    median(() => own.springsDouble(cells, double.p, double.q)),
    bare,
  )
  const megabytes = Number((own.buffer.byteLength / 2 ** 20).toFixed(1))
  if (!isPlain)
    tell(
      'setUp',
      median(() => void runToEnd(readyWork(mesh, [isotropic(2000, 0.35)], held))),
      bare,
      { megabytes },
    )
  if (!isPlain)
    tell(
      'solve',
      median(() => void runToEnd(solveWork(ready, forces))),
      bare,
    )
}
