import { describe, expect, it } from 'vitest'
import { TimeLeft } from './timeLeft'

/** What is told after each variant, and what was true, s. */
function run(tookMs: readonly number[]): { told: number | undefined; truth: number }[] {
  const left = new TimeLeft()
  let atMs = 0
  const whole = tookMs.reduce((sum, ms) => sum + ms, 0)
  left.of(0, 0, tookMs.length)
  return tookMs.map((ms, i) => {
    atMs += ms
    return { told: left.of(atMs, i + 1, tookMs.length - i - 1), truth: (whole - atMs) / 1000 }
  })
}

describe('the time that is left', () => {
  it('of an even pace is the truth, once there is a pace', () => {
    const all = run(Array(60).fill(500))
    expect(all.slice(0, 4).map(({ told }) => told)).toEqual([undefined, undefined, undefined, undefined])
    for (const { told, truth } of all.slice(5)) expect(told).toBeCloseTo(truth, 6)
  })

  it('forgets a slow beginning within a window', () => {
    const all = run([...Array(4).fill(3000), ...Array(200).fill(100)])
    const [then] = all.filter(({ truth }) => truth < 11)
    expect(Math.abs(then!.told! / then!.truth - 1)).toBeLessThan(0.05)
  })

  it('grows when the pace slackens', () => {
    const all = run([...Array(50).fill(100), ...Array(50).fill(1000)])
    const { told, truth } = all[65]!
    expect(told! / truth).toBeGreaterThan(0.7)
  })
})
