import { carryHook } from '@sable/demo/parts/carryHook'
import { describe, expect, it } from 'vitest'
import { asModelled } from '../../mesh/place'
import { usualGrip } from '../../physics/strength/grip'
import type { SettingValues } from '../../profile/settings'
import { testKernel } from '../../testing/kernel'
import { setupOf } from '../../testing/setups'
import { partOf } from '../../testing/solids'
import { Cancelled, InputError } from '../../units/errors'
import { doPiece } from '../../work/doAlone'
import type { Work } from '../../work/work'
import { type Prediction, predict, predictWork } from '../predict'
import { Crew, type CrewMessage, type Line } from './crew'
import { tasks } from './tasks'

const open = () => testKernel
const part = partOf('hook', carryHook())
const plain: SettingValues = { layerHeight: 0.1, infillDensity: 20 }
const candidates: readonly SettingValues[] = [
  plain,
  { ...plain, supports: 'branching', infillPattern: 'topPropping', infillDensity: 6, ironing: 'on' },
]
const work = (values: SettingValues): Work<Prediction> => predictWork(part, asModelled, setupOf(), values, {})

type Call = CrewMessage & { readonly kind: 'call' }
type Answer = CrewMessage & { readonly kind: 'answer' }

/** A helper's end of a line: what crosses is copied as between threads. `ask` calls it for help and waits for all answers. */
function helperOnLine(): { readonly line: Line; ask(call: Call): Promise<Answer[]> } {
  let hear: (message: CrewMessage) => void = () => {}
  let onAnswer: (answer: Answer) => void = () => {}
  return {
    line: {
      post: (message, transfer) => onAnswer(structuredClone(message, { transfer: [...transfer] }) as Answer),
      listen: (onMessage) => {
        hear = onMessage
      },
    },
    ask: (call) =>
      new Promise((resolve) => {
        const answers: Answer[] = []
        onAnswer = (answer) => {
          answers.push(answer)
          if (answers.length === call.pieces.length) resolve(answers)
        }
        hear(structuredClone(call))
      }),
  }
}

/** A line to a thread that takes the first pieces of every bundle, and answers when it has done them by `answer`. */
function takesFirst(most: number, answer: (call: Call, index: number) => Promise<Answer>): Line {
  let hear: (message: CrewMessage) => void = () => {}
  return {
    post: (message) => {
      const call = message as Call
      for (let n = 0; n < most; n++) {
        const index = Atomics.add(call.control, 0, 1)
        if (index < call.pieces.length) void answer(call, index).then((given) => setTimeout(() => hear(given)))
      }
    },
    listen: (onMessage) => {
      hear = onMessage
    },
  }
}

/** One piece, done by a helper of its own. */
async function byHelper(call: Call, index: number): Promise<Answer> {
  const { line, ask } = helperOnLine()
  new Crew(open, [line])
  const control = new Int32Array(new SharedArrayBuffer(8))
  const [answer] = await ask({ ...call, control, pieces: [call.pieces[index]!] })
  return { ...answer!, index }
}

describe('a crew', () => {
  it.each(candidates)('comes to the same as one thread alone when others do some of the pieces: %o', async (values) => {
    const alone = predict(part, asModelled, setupOf(), values, { kernel: await testKernel })
    const crew = new Crew(open, [takesFirst(3, byHelper), takesFirst(2, byHelper)])
    expect(await crew.do(work(values))).toEqual(alone)
  })

  const pictured = {
    name: 'sign',
    fromZ: 0,
    toZ: 2,
    values: {},
    picture: { columns: 2, rows: 1, greys: '0f', lay: 'wrapped' as const, times: 1, darkSpeed: 30, lightSpeed: 90 },
  }
  it('finds every task that a prediction hands out by its name', async () => {
    const kernel = await testKernel
    const seen = new Set<string>()
    for (const values of candidates) {
      const load = { grip: usualGrip, direction: { azimuthDeg: 30, elevationDeg: 20 } }
      const handed = predictWork(part, asModelled, setupOf(), values, { load, overrides: [pictured] })
      // A helper that finds no task by the name would say that it failed, and its leader would do everything alone.
      for (let step = handed.next([]); !step.done; ) {
        for (const { task } of step.value.pieces) {
          expect(tasks.get(task.name)).toBe(task)
          seen.add(task.name)
        }
        const bundle = step.value
        step = handed.next(bundle.pieces.map((_, i) => doPiece(bundle, i, kernel, () => {})))
      }
    }
    expect([...seen].sort()).toEqual([...tasks.keys()].sort())
  })

  it('does itself what a helper could not', async () => {
    const alone = predict(part, asModelled, setupOf(), plain, { kernel: await testKernel })
    const failing = takesFirst(2, async ({ bundle }, index) => ({ kind: 'answer', bundle, index, failed: true }))
    expect(await new Crew(open, [failing]).do(work(plain))).toEqual(alone)
  })

  it('waits for nobody that is busy', async () => {
    const alone = predict(part, asModelled, setupOf(), plain, { kernel: await testKernel })
    const busy: Line = { post: () => {}, listen: () => {} }
    expect(await new Crew(open, [busy]).do(work(plain))).toEqual(alone)
  })

  it('takes nothing where it could not do it', async () => {
    const { line, ask } = helperOnLine()
    new Crew(() => Promise.reject(new Error('no kernel here')), [line])
    const control = new Int32Array(new SharedArrayBuffer(8))
    void ask({ kind: 'call', you: 1, bundle: 1, control, pieces: [{ task: 'sliceBlock', input: {} }] })
    await new Promise((resolve) => setTimeout(resolve, 20))
    expect(Atomics.load(control, 0)).toBe(0)
  })

  it('stops for good when its progress is not wanted, and tells its helpers', async () => {
    const controls: Int32Array[] = []
    const watched: Line = { post: (message) => controls.push((message as Call).control), listen: () => {} }
    const stop = () => {
      throw new Cancelled('superseded')
    }
    await expect(new Crew(open, [watched]).do(work(plain), stop)).rejects.toThrow(Cancelled)
    expect(controls.map((control) => Atomics.load(control, 1))).toEqual([1])
  })

  it('tells progress that never falls within a stage', async () => {
    const told: Record<string, number[]> = {}
    await new Crew(open, [takesFirst(1, byHelper)]).do(work(plain), (stage, share) => {
      told[stage] ??= []
      told[stage].push(share)
    })
    for (const shares of Object.values(told)) {
      expect(shares).toEqual(shares.toSorted((a, b) => a - b))
      expect(shares.at(-1)).toBeLessThanOrEqual(1)
    }
    expect(Object.keys(told).sort()).toEqual(['layers', 'motion', 'regions', 'toolpath'])
  })

  it('refuses a bad part as one thread alone does', async () => {
    const huge = predictWork(part, { ...asModelled, scale: 1000 }, setupOf(), plain, {})
    await expect(new Crew(open, [takesFirst(1, byHelper)]).do(huge)).rejects.toThrow(InputError)
  })

  it('takes back what a helper has taken that ends without a word, and comes to the same', async () => {
    const alone = predict(part, asModelled, setupOf(), plain, { kernel: await testKernel })
    /** Takes two pieces of each bundle, marks them as its own, and is never heard of again. */
    let taken = 0
    const dies: Line = {
      post: (message) => {
        const { control, pieces, you } = message as Call
        for (let n = 0; n < 2; n++) {
          const index = Atomics.add(control, 0, 1)
          if (index >= pieces.length) continue
          control[2 + index] = you
          taken++
        }
        setTimeout(() => crew.leave(dies))
      },
      listen: () => {},
    }
    const crew = new Crew(open, [dies, takesFirst(2, byHelper)])
    expect(await crew.do(work(plain))).toEqual(alone)
    expect(taken).toBeGreaterThan(0)
  })
})
