import { describe, expect, it } from 'vitest'
import { code, type Toolpath, ToolpathBuilder } from '../toolpath/toolpath'
import { seeded } from '../units/seeded'
import { arcFrom } from './arcs'

/** A line through points, each laid alike. */
function lineThrough(points: readonly (readonly [x: number, y: number, z?: number])[]): Toolpath {
  const out = new ToolpathBuilder()
  out.startAt(points[0]![0], points[0]![1], points[0]![2] ?? 0)
  out.startLayer()
  for (const [x, y, z] of points.slice(1)) {
    out.layTo(x, y, code.outerWall, 0.08, 0.4)
    if (z !== undefined) out.riseSince(out.count - 1, z)
  }
  return out.finish()
}
const even = { asked: new Float64Array(1000).fill(40), acceleration: new Float64Array(1000).fill(1000) } as never
const circle = (radius: number, from: number, to: number, count: number, rise = 0): [number, number, number][] =>
  Array.from({ length: count + 1 }, (_, i) => {
    const at = from + ((to - from) * i) / count
    return [7 + radius * Math.cos(at), -3 + radius * Math.sin(at), (rise * i) / count]
  })

describe('moves on a circle', () => {
  it('are one arc about its middle, either way round, rising or not', () => {
    for (const [radius, from, to, rise] of [
      [10, 0, 2, 0],
      [2.5, 1, -2, 0],
      [60, 0.3, 0.9, 0.2],
    ] as const) {
      const path = lineThrough(circle(radius, from, to, 40, rise))
      const arc = arcFrom(path, even, 0, 40)!
      expect(arc.to).toBe(40)
      expect(arc.clockwise).toBe(to < from)
      expect(Math.hypot(arc.cx - 7, arc.cy + 3)).toBeLessThan(1e-6)
    }
  })

  it('of a whole turn are no arc that ends where it begins', () => {
    const path = lineThrough(circle(8, 0, 2 * Math.PI, 90))
    const first = arcFrom(path, even, 0, 90)!
    expect(first.to).toBeLessThan(90)
    expect(first.to).toBeGreaterThan(80)
  })

  it('end where the line straightens, turns the other way, is asked otherwise or rises unevenly', () => {
    const round = circle(10, 0, 1.5, 20)
    const [x, y] = round.at(-1)!
    const straight = [1, 2, 3, 4, 5].map((mm): [number, number, number] => [x - 3 * mm, y + 0.2 * mm, 0])
    expect(arcFrom(lineThrough([...round, ...straight]), even, 0, 25)!.to).toBe(20)
    const slower = { asked: new Float64Array(30).fill(40).fill(20, 12), acceleration: new Float64Array(30).fill(1000) } as never
    expect(arcFrom(lineThrough(round), slower, 0, 20)!.to).toBe(12)
    const jump = round.map(([px, py], i): [number, number, number] => [px, py, i < 10 ? 0 : 0.1])
    expect(arcFrom(lineThrough(jump), even, 0, 20)?.to ?? 0).toBeLessThanOrEqual(10)
    expect(arcFrom(lineThrough(straight), even, 0, 4)).toBeUndefined()
  })

  it('lie within two hundredths of a millimetre of what is written, whatever they are', () => {
    const random = seeded(11)
    for (let tries = 0; tries < 200; tries++) {
      let [x, y, heading] = [0, 0, 0]
      const bend = (random() - 0.5) * 0.3
      const points = Array.from({ length: 60 }, (): [number, number] => {
        heading += bend + (random() - 0.5) * 0.02
        x += 0.6 * Math.cos(heading)
        y += 0.6 * Math.sin(heading)
        return [x, y]
      })
      const path = lineThrough(points)
      const arc = arcFrom(path, even, 0, 59)
      if (!arc) continue
      const radius = Math.hypot(points[0]![0] - arc.cx, points[0]![1] - arc.cy)
      for (let i = 0; i < arc.to; i++) {
        const [mx, my] = [(points[i]![0] + points[i + 1]![0]) / 2, (points[i]![1] + points[i + 1]![1]) / 2]
        expect(Math.abs(Math.hypot(mx - arc.cx, my - arc.cy) - radius)).toBeLessThan(0.03)
        expect(Math.abs(Math.hypot(points[i + 1]![0] - arc.cx, points[i + 1]![1] - arc.cy) - radius)).toBeLessThan(0.009)
      }
    }
  })
})
