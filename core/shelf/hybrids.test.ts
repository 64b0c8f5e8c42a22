import { describe, expect, it } from 'vitest'
import { predict } from '../pipeline/predict'
import { StageCache } from '../pipeline/stageCache'
import { testKernel } from '../testing/kernel'
import { setupOf } from '../testing/setups'
import { blockMesh, partOf } from '../testing/solids'
import { hybrids } from './hybrids'

describe('the same profile on two machines', () => {
  it('takes longer on the one that accelerates less, and that is what makes the difference (CP-T5, common practice)', async () => {
    const kernel = await testKernel
    const [slow, quick] = [setupOf('dory'), setupOf('lugger')]
    const part = partOf('two machines', blockMesh(40, 25, 6))
    const cache = new StageCache(30)
    const values = { outerWallSpeed: 120, innerWallSpeed: 150, infillSpeed: 150, topBottomSpeed: 120 }
    const time = (printer: typeof slow.printer): number =>
      predict(part, { scale: 1, rotateDeg: [0, 0, 0] }, { ...slow, printer }, values, { kernel, cache }).timeS
    const [own, other] = [time(slow.printer), time(quick.printer)]
    expect(other).toBeLessThan(own)
    const gains = hybrids(slow.printer, quick.printer).map(({ label, printer }) => ({ label, gain: own - time(printer) }))
    expect(gains.reduce((most, next) => (next.gain > most.gain ? next : most)).label).toBe('accelerations')
    expect(hybrids(slow.printer, slow.printer)).toEqual([])
  })
})
